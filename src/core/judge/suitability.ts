import type { Direction } from '../domain/plan';
import { meanOpinionScore, transmissionRating } from './voice-rating';

export const USES = ['voice', 'meeting', 'remote-desktop', 'music', 'streaming', 'backup'] as const;
export type Use = (typeof USES)[number];
export type SuitabilityWord = 'fine' | 'strained' | 'not usable';

/** The figure that decides. Rates in bits per second, times in ms. */
export type Deciding =
  | { readonly by: 'rate'; readonly way: Direction; readonly bps: number; readonly wantedBps: number }
  | { readonly by: 'round-trip' | 'jitter' | 'added-up'; readonly ms: number; readonly wantedMs: number }
  | {
      readonly by: 'voice';
      readonly rating: number;
      readonly meanOpinion: number;
      readonly loadedRttMs: number;
      /** Null: not measured. */
      readonly lossRatio: number | null;
    }
  | { readonly by: 'unsteady' | 'no-cable' }
  /** A record of before method 5 has words instead. */
  | { readonly by: 'written'; readonly words: string };

/** How one use would feel on this path, with the figure that decides; `decidingWords` puts it into words. */
export interface Suitability {
  readonly use: Use;
  readonly word: SuitabilityWord;
  readonly because: Deciding;
}

/** What the needs are held against. Rates in bits per second, times in ms; null: not measured. */
export interface SuitabilityInput {
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly loadedRttMs: number | null;
  readonly jitterMs: number | null;
  /** Mean loss of one direction; null: not measured, then left out and said. */
  readonly lossRatio: number | null;
  readonly steady: boolean;
  readonly wired: boolean;
  /** Added delay of the upload: what a backup does to everybody else. */
  readonly upAddedMs: number | null;
}

interface Need {
  readonly figure: number | null;
  readonly fine: (value: number) => boolean;
  readonly usable: (value: number) => boolean;
  readonly deciding: (value: number) => Deciding;
}

const atLeast = (mbps: number, strainedMbps: number, figure: number | null, way: Direction): Need => ({
  figure,
  fine: (value) => value >= mbps * 1e6,
  usable: (value) => value >= strainedMbps * 1e6,
  deciding: (value) => ({ by: 'rate', way, bps: value, wantedBps: mbps * 1e6 }),
});

const atMost = (
  limitMs: number,
  strainedMs: number,
  figure: number | null,
  by: 'round-trip' | 'jitter' | 'added-up',
): Need => ({
  figure,
  fine: (value) => value < limitMs,
  usable: (value) => value < strainedMs,
  deciding: (value) => ({ by, ms: value, wantedMs: limitMs }),
});

const RANK: Record<SuitabilityWord, number> = { 'not usable': 0, strained: 1, fine: 2 };

/** The worst need decides. Null when a need's figure was not measured. */
function hold(use: Use, needs: readonly Need[]): Suitability | null {
  const held = needs.map(({ figure, fine, usable, deciding }) => {
    if (figure === null) return null;
    const word: SuitabilityWord = fine(figure) ? 'fine' : usable(figure) ? 'strained' : 'not usable';
    return { use, word, because: deciding(figure) };
  });
  if (held.some((one) => one === null)) return null;
  return (held as Suitability[]).sort((a, b) => RANK[a.word] - RANK[b.word])[0]!;
}

function voiceOf({ loadedRttMs, jitterMs, lossRatio }: SuitabilityInput): Suitability | null {
  if (loadedRttMs === null || jitterMs === null) return null;
  const rating = transmissionRating({ oneWayMs: loadedRttMs / 2, jitterMs, lossRatio: lossRatio ?? 0 });
  const word: SuitabilityWord = rating >= 80 ? 'fine' : rating >= 60 ? 'strained' : 'not usable';
  return {
    use: 'voice',
    word,
    because: { by: 'voice', rating, meanOpinion: meanOpinionScore(rating), loadedRttMs, lossRatio },
  };
}

/**
 * Each use as fine, strained or not usable on this path while it is loaded, after the needs in docs/measurement.md.
 * Voice goes by the E-model of ITU-T G.107. Uses whose figures were not measured are left out.
 */
export function suitabilityOf(input: SuitabilityInput): Suitability[] {
  const { downBps, upBps, loadedRttMs, jitterMs, upAddedMs } = input;
  const music = hold('music', [atMost(25, 40, loadedRttMs, 'round-trip'), atMost(3, 8, jitterMs, 'jitter')]);
  const desktop = hold('remote-desktop', [atMost(100, 200, loadedRttMs, 'round-trip')]);
  return [
    voiceOf(input),
    hold('meeting', [
      atLeast(4, 1.5, downBps, 'down'),
      atLeast(4, 1.5, upBps, 'up'),
      atMost(150, 300, loadedRttMs, 'round-trip'),
    ]),
    desktop !== null && desktop.word === 'fine' && !input.steady
      ? { ...desktop, word: 'strained' as const, because: { by: 'unsteady' as const } }
      : desktop,
    music !== null && music.word === 'fine' && !input.wired
      ? { ...music, word: 'strained' as const, because: { by: 'no-cable' as const } }
      : music,
    hold('streaming', [atLeast(25, 8, downBps, 'down')]),
    hold('backup', [atLeast(20, 4, upBps, 'up'), atMost(75, 200, upAddedMs, 'added-up')]),
  ].filter((one) => one !== null);
}
