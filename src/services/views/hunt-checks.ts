import { CHECK_CODES, CHECKS, isOfDevice, type CheckCode } from '@/core';
import type { Device, StoredHunt, StoredHuntStep } from '@/store';
import { ruledOutIn } from '../diagnosis';

/** Something that a person can rule out by looking. */
export interface ShownCheck {
  readonly check: CheckCode;
  readonly done: boolean;
}

/** What can be ruled out on the way of a hunt: of a device only where one is named, its tunnel only where it has one. */
export function checksOf(
  hunt: StoredHunt,
  steps: readonly StoredHuntStep[],
  focus: Device | null,
  nowMs: number,
): ShownCheck[] {
  if (hunt.state !== 'open' || hunt.kind !== 'hunt') return [];
  const done = ruledOutIn(steps, nowMs);
  const named = hunt.focus.deviceId !== undefined;
  return CHECK_CODES.filter((check) => {
    const kinds: readonly string[] = CHECKS[check].kinds;
    return kinds.includes('vpn') ? named && focus?.link.medium === 'tunnel' : named || !isOfDevice(check);
  }).map((check) => ({ check, done: done.has(check) }));
}
