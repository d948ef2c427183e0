import type { Migration } from './migration';

/** How many runs are evidence of their path is counted after each run: in an index of nothing else it takes a tenth. */
export const quickEvidence: Migration = {
  name: '0019-quick-evidence',
  statements: [
    `CREATE INDEX runs_of_evidence ON runs (siteId, startedAtMs) WHERE status = 'finished'
       AND profile NOT IN ('delay', 'paced', 'single') AND evidence IN ('alone', 'practice')`,
  ],
};
