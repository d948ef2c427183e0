import type { Deciding } from '../judge/suitability';
import { delayWords, rateWords, shareWords } from './quantity-words';

const DELAY_WORDS = {
  'round-trip': 'there and back under load',
  jitter: 'jitter',
  'added-up': 'added for everybody else while it uploads',
} as const;

/** The figure that decides how a use would feel, in words. A record of before keeps those that it was given. */
export function decidingWords(deciding: Deciding): string {
  switch (deciding.by) {
    case 'written':
      return deciding.words;
    case 'rate':
      return `${rateWords(deciding.bps)} ${deciding.way}, ${deciding.wantedBps / 1e6} wanted`;
    case 'round-trip':
    case 'jitter':
    case 'added-up':
      return `${delayWords(deciding.ms)} ${DELAY_WORDS[deciding.by]}, under ${deciding.wantedMs} wanted`;
    case 'unsteady':
      return 'the rate is not steady';
    case 'no-cable':
      return 'not over a cable';
    case 'voice': {
      const loss = deciding.lossRatio === null ? 'loss not measured' : `${shareWords(deciding.lossRatio)} lost`;
      return `R ${deciding.rating.toFixed(0)}, MOS ${deciding.meanOpinion.toFixed(1)} at ${delayWords(deciding.loadedRttMs)} under load, ${loss}`;
    }
  }
}
