import { CHECK_CODES, soundOf, type DiagnosedSegment, type Occasion, type StoryLine } from '@/core';
import type { Device, StoredHunt, StoredHuntStep } from '@/store';
import type { ShownSwap } from './swaps-page';

const MOST_STORY = 40;
const textOf = (value: unknown) => (typeof value === 'string' ? value : '');

interface StoryOf {
  readonly hunt: StoredHunt;
  readonly steps: readonly StoredHuntStep[];
  readonly swaps: readonly ShownSwap[];
  readonly occasions: readonly Occasion[];
  readonly devices: readonly Device[];
  readonly segments: ReadonlyMap<string, DiagnosedSegment>;
}

const worseOf = (down: number | null, up: number | null) =>
  down === null && up === null ? null : Math.max(down ?? 0, up ?? 0);

function writtenLine({ kind, atMs, byName, facts }: StoredHuntStep): StoryLine {
  if (kind === 'queue-set') return { kind, atMs, byName, bps: Number(facts['bps']) };
  const check = CHECK_CODES.find((code) => code === facts['check']);
  if (check !== undefined) return { kind: 'checked', atMs, byName, check, out: kind === 'ruled-out' };
  return { kind: 'note', atMs, byName, text: textOf(facts['text']) };
}

/** What has happened in a hunt, the oldest first; of a long one the end. */
export function storyOf({ hunt, steps, swaps, occasions, devices, segments }: StoryOf): StoryLine[] {
  const during = (atMs: number) => atMs >= hunt.openedAtMs && atMs <= (hunt.closedAtMs ?? Infinity);
  const runs = occasions
    .filter(({ startedAtMs }) => during(startedAtMs))
    .map((occasion): StoryLine => ({
      ...{ kind: 'run', atMs: occasion.startedAtMs, runId: occasion.runIds.at(-1)!, reach: occasion.reach },
      deviceName: devices.find(({ id }) => id === occasion.deviceId)?.name ?? '',
      downBps: occasion.down?.medianBps ?? null,
      upBps: occasion.up?.medianBps ?? null,
      addedMs: worseOf(occasion.addedDownMs, occasion.addedUpMs),
      soundBps: soundOf(occasion.path, segments, 'down')?.highBps ?? null,
    }));
  const queueSets = steps.filter(({ kind }) => kind === 'queue-set');
  const swapped = swaps
    // A queue that was set is told with its figure already.
    .filter(
      ({ atMs, what }) => during(atMs) && !(what === 'queue-managed' && queueSets.some((set) => set.atMs === atMs)),
    )
    .map(({ atMs, byName, what, words }): StoryLine => ({ kind: 'swap', atMs, byName, what, words }));
  const written = steps.map(writtenLine);
  const ended: StoryLine[] =
    hunt.closedAtMs === null
      ? []
      : [
          {
            ...{ kind: 'ended', atMs: hunt.closedAtMs, state: hunt.state },
            byName: textOf(hunt.outcome?.['byName']),
            text: textOf(hunt.outcome?.['note']),
          },
        ];
  const opened: StoryLine = { kind: 'opened', atMs: hunt.openedAtMs, byName: hunt.openedBy };
  return [opened, ...runs, ...swapped, ...written, ...ended].sort((a, b) => a.atMs - b.atMs).slice(-MOST_STORY);
}
