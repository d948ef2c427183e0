import type { LinkCeiling } from '../../ceiling/link-ceiling-type';
import type { RateEstimate } from '../../measure/rate/rate-estimate';
import type { RunConditions } from '../../run/run-conditions';
import type { RunSamples } from '../../run/run-samples';

/** What the flags are raised from: the conditions, the raw sightings, and what was measured. */
export interface FitnessInput {
  readonly conditions: RunConditions;
  readonly samples: RunSamples;
  readonly ceiling: LinkCeiling | null;
  readonly down: RateEstimate | null;
  readonly up: RateEstimate | null;
}
