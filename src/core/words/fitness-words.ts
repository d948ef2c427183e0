import type { ToldCondition } from '../domain/told-condition';
import type { Direction } from '../domain/plan';
import type { FitnessCode, FitnessFacts, FitnessFlag, Incredible } from '../judge/fitness/fitness-flag';
import type { UnsettledCause } from '../measure/rate/level-figure';
import { nominalRateFigure, rateWords, shareWords, sizeWords } from './quantity-words';

/** A flag as a person reads it: what was the case, and what to do. Both go on a sentence, so they begin small. */
export interface FlagWords {
  readonly fact: string;
  readonly nextStep: string;
}

const secondsFigure = (ms: number) => (ms / 1000).toFixed(1);

const TOLD: Readonly<Record<ToldCondition, FlagWords>> = {
  backup: {
    fact: 'a backup or a sync was running, as was said before the run',
    nextStep: 'let it end, then run again',
  },
  update: { fact: 'an update was being fetched, as was said before the run', nextStep: 'let it end, then run again' },
  others: {
    fact: 'others were using the line, as was said before the run',
    nextStep: 'run again when the line is free, or at night',
  },
};

const CAUSES: Readonly<Record<UnsettledCause, FlagWords>> = {
  drifting: {
    fact: 'the rate still moved by more than 1 % from second to second when the time was up',
    nextStep: 'look for other traffic on the line, then run again',
  },
  'changed-level': {
    fact: 'the rate changed to another level during the run and had not held it for three seconds',
    nextStep: 'run again with a longer profile, to see which level lasts',
  },
  'too-short': {
    fact: 'the direction ended before enough was counted to tell whether it was steady',
    nextStep: 'run again with a longer profile',
  },
  'too-few-windows': {
    fact: 'too little was left after the last change to hold three means side by side',
    nextStep: 'run again with a longer profile',
  },
};

function incredibleWords(facts: Incredible): string {
  switch (facts.what) {
    case 'over-ticket':
      return `${sizeWords(facts.bytes)} were handed in, and the ticket allowed ${sizeWords(facts.allowedBytes)}`;
    case 'over-peer': {
      const verb = facts.way === 'down' ? 'sent' : 'received';
      return `${sizeWords(facts.bytes)} ${facts.way} were handed in, and the peer ${verb} ${sizeWords(facts.peerBytes)}`;
    }
    case 'too-short':
      return `the load ${facts.way} is said to have lasted ${secondsFigure(facts.spanMs)} s, and the peer was busy with it for ${secondsFigure(facts.peerMs)} s`;
    case 'echoes':
      return `${facts.echoes} echoes were handed in, and the peer sent ${facts.peerEchoes}`;
    case 'round-trip': {
      const least =
        facts.kernelMs === null
          ? 'a round trip takes some time'
          : `the peer's kernel saw none below ${facts.kernelMs} ms`;
      return `round trips of ${Number(facts.rttMs.toFixed(3))} ms were handed in, and ${least}`;
    }
  }
}

function limitedWords(facts: FitnessFacts['device-limited']): string {
  switch (facts.by) {
    case 'window':
      return `the peer had to wait for the device to take data in for ${shareWords(facts.share)} of the time`;
    case 'self-read':
      return `without any network this browser takes in ${rateWords(facts.selfReadBps)}, hardly more than was measured`;
    case 'stalls':
      return `the device was too busy to keep time for ${shareWords(facts.share)} of the ${facts.way === 'down' ? 'download' : 'upload'}`;
  }
}

function busyWords(facts: FitnessFacts['peer-busy']): string {
  switch (facts.by) {
    case 'others':
      return `the peer served ${facts.count} other ${facts.count === 1 ? 'run' : 'runs'} at the same time`;
    case 'processor':
      return `the peer's processor was ${shareWords(facts.share)} busy`;
    case 'lateness':
      return `the peer was late by ${facts.lateMs.toFixed(0)} ms at its own work`;
  }
}

function trafficWords(facts: FitnessFacts['other-traffic']): FlagWords {
  if (facts.seen === 'told') return TOLD[facts.condition];
  return {
    fact: `other programs on the device moved ${rateWords(facts.downBps)} down and ${rateWords(facts.upBps)} up meanwhile`,
    nextStep: 'stop them and run again',
  };
}

function lineWords({ othersBps, measuredBps, seconds }: FitnessFacts['line-in-use'], way: Direction): FlagWords {
  const beside = measuredBps === null ? '' : ` beside the ${rateWords(measuredBps)} of this run`;
  return {
    fact: `others moved ${rateWords(othersBps)} ${way} over the line${beside}, as its router counted over ${seconds.toFixed(0)} s`,
    nextStep: 'run again when the line is idle, or see in the lanes who uses it',
  };
}

function unsettledWords({ cause, range }: FitnessFacts['unsettled']): FlagWords {
  const { fact, nextStep } = CAUSES[cause];
  if (range === null) return { fact, nextStep };
  const apart = `what arrived steadily (${rateWords(range.steadyBps)}) and what arrived in all (${rateWords(range.meanBps)}) lie more than a tenth apart`;
  return { fact: `${apart}: ${fact}`, nextStep };
}

function portWords(whose: string, { lineRateBps, payloadBps, promisedBps }: FitnessFacts['link-below-plan']): string {
  return `${whose} runs at ${nominalRateFigure(lineRateBps)} Mb/s and can show ${rateWords(payloadBps)}; the plan is ${nominalRateFigure(promisedBps)}`;
}

/** Puts a flag into words. A record of before keeps those that it was given. */
export function flagWords(flag: FitnessFlag): FlagWords {
  if ('written' in flag) return flag.written;
  switch (flag.code) {
    case 'same-machine':
      return {
        fact: 'the device and the peer are the same machine, so no cable or air was crossed',
        nextStep: 'open the page on another device and run there',
      };
    case 'single-stream':
      return {
        fact: 'it went over one TCP connection, as one copy does: on a long path what such a one holds under way limits it, whatever the line could carry',
        nextStep: 'to judge the line run with several: the profile standard',
      };
    case 'imported':
      return {
        fact: 'its figures came from a file: there are no samples, and nothing shows how they were made',
        nextStep: 'compare it with others of its kind; for what it should prove, run here',
      };
    case 'not-credible':
      return {
        fact: `the samples cannot be: ${incredibleWords(flag.facts)}`,
        nextStep: 'run again; if that happens each time, look at the device and at its clock',
      };
    case 'no-receipt':
      return {
        fact: 'the peer did not sign for what it moved, so nothing but the device speaks for these figures',
        nextStep: 'check in the set-up that the peer answers, then run again',
      };
    case 'shared-on-purpose':
      return {
        fact: 'it was started together with other runs on purpose, so each had a share of what there was',
        nextStep: 'read the sum of all of them, or run it alone',
      };
    case 'link-below-plan':
      return {
        fact: portWords('the cable', flag.facts),
        nextStep: 'swap the cable or the switch port, or test from a device whose port comes up faster',
      };
    case 'link-doubtful': {
      const { measuredBps, mostBps, lineRateBps } = flag.facts;
      return {
        fact: `${rateWords(measuredBps)} were measured, more than the ${rateWords(mostBps)} that the link can carry as it was described (${nominalRateFigure(lineRateBps)} Mb/s)`,
        nextStep: 'read on the device how it is connected and at what rate, and answer again',
      };
    }
    case 'over-wifi':
      return { fact: 'the device was on Wi-Fi', nextStep: 'run again over a cable' };
    case 'through-tunnel': {
      const { mssBytes } = flag.facts;
      return {
        fact:
          mssBytes === null
            ? 'the device was connected through a VPN'
            : `the packets carry ${Math.round(mssBytes)} bytes, fewer than a plain path lets through: something like a VPN is on the way`,
        nextStep: 'run again with the VPN off',
      };
    }
    case 'link-unknown':
      return {
        fact: 'nobody has said at what rate the link runs',
        nextStep: 'read the negotiated rate on the device and enter it, then run again',
      };
    case 'device-limited':
      return {
        fact: limitedWords(flag.facts),
        nextStep: 'close other programs on it, or test from a faster device in the same place',
      };
    case 'peer-busy':
      return {
        fact: busyWords(flag.facts),
        nextStep: 'wait until nothing else runs against this peer, then run again',
      };
    case 'peer-below-plan':
      return { fact: portWords("the peer's own port", flag.facts), nextStep: 'use a peer with a faster port' };
    case 'far-end-not-ours':
      return {
        fact: 'the far end is a web server of somebody else: it, or the way to it, may be the limit',
        nextStep: 'to prove that the plan is not met, set up a peer of your own outside and run against that',
      };
    case 'other-traffic':
      return trafficWords(flag.facts);
    case 'line-in-use':
      return lineWords(flag.facts, flag.direction ?? 'down');
    case 'unsettled':
      return unsettledWords(flag.facts);
    case 'single-run':
      return { fact: 'this is one run', nextStep: 'run twice more for a set' };
    case 'other-peer-than-usual':
      return {
        fact: 'earlier runs of this reach went to another peer',
        nextStep: 'compare only runs against the same peer',
      };
    case 'page-hidden':
      return {
        fact: `the page was out of sight for ${secondsFigure(flag.facts.hiddenMs)} s of the run`,
        nextStep: 'keep the page in front while it measures',
      };
    case 'clock-jump':
      return {
        fact: `the clock of the device was moved by ${secondsFigure(flag.facts.jumpMs)} s during the run`,
        nextStep: 'let its clock settle (it may have woken from sleep) and run again',
      };
    case 'power-saving':
      return {
        fact: flag.facts.setting,
        nextStep: 'plug the device in, switch its power saver off, and run again',
      };
  }
}

/** Why a run could not tell about the plan, in a word or two. */
export const UNFIT_WORDS: Readonly<Partial<Record<FitnessCode, string>>> = {
  'link-below-plan': 'the link is below the plan',
  'single-stream': 'over one connection',
  imported: 'from a file',
  'link-doubtful': 'the link is in doubt',
  'over-wifi': 'over the air',
  'through-tunnel': 'through a tunnel',
  'link-unknown': 'the link is unknown',
  'device-limited': 'the device held back',
  'peer-busy': 'the far end was busy',
  'peer-below-plan': 'the far end is below the plan',
  'far-end-not-ours': 'the far end is not ours',
  'other-traffic': 'others were on the line',
  'line-in-use': 'others used the line',
  'no-receipt': 'without a receipt',
  'not-credible': 'not credible',
  'same-machine': 'both ends on one machine',
  'shared-on-purpose': 'shared on purpose',
  unsettled: 'not settled',
};
