import { startRun } from '@/client';
import { openWebTransport } from '@/client/node';
import { downloadOnly, RUN_PROFILES, type ProfileName } from '@/core';

const MOST_BYTES = 20e9;

/** One run against a page, as an agent makes it; its samples go to standard output as JSON. */
export function runWebClient(page: string, profile: ProfileName): void {
  const web = { pages: [page], mostBytes: MOST_BYTES, contact: 'lab@larkspur.example' };
  const transport = openWebTransport(web, { userAgent: 'bent-straw-lab (lab@larkspur.example)' });
  startRun(transport, downloadOnly(RUN_PROFILES[profile], MOST_BYTES), (news) => {
    if (news.kind === 'progress') return;
    if (news.kind === 'failed') console.error(news.reason, JSON.stringify(news.samples.client?.troubles));
    else process.stdout.write(JSON.stringify(news.samples), () => process.exit(0));
  });
}
