import type { ProfileName, RunSamples } from '@/core';

/** What one run in the lab gives: the raw samples, or why there is no result. */
export type LabRun =
  | { readonly status: 'finished'; readonly samples: RunSamples; readonly tookMs: number }
  | { readonly status: 'unfinished'; readonly sentence: string; readonly tookMs: number };

/** A device at the near end of a lab line. */
export interface LabClient {
  readonly name: 'Chromium' | 'Firefox' | 'WebKit' | 'Node' | 'Node, web' | 'Agents';
  run(joinAddress: string, profile: ProfileName, deviceName?: string): Promise<LabRun>;
  close(): Promise<void>;
}
