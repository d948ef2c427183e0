import { agoWords, rateWords, WEAK_SIGNAL_DBM, type AirFigures } from '@/core';
import { CELL, FIGURE } from '../look/found-table';
import { CourseLine } from './course-line';

/** Signals between these are drawn, dBm: from where nothing is understood any more to beside the access point. */
const [FAINT_DBM, LOUD_DBM] = [-90, -35];
/** One run alone has no course. */
const LEAST_OF_COURSE = 2;

export const AIR_HEADS = [
  'signal, dBm',
  'least to most',
  'link rate',
  'inside, down',
  'from run to run',
  'runs',
  'newest',
];

/** A spot or a device in figures, as cells of a row. */
export function AirCells({ of, nowMs }: { readonly of: AirFigures; readonly nowMs: number }) {
  const { signal, linkRateBps, insideBps, course, runs, newestMs } = of;
  const signals = course.map(({ signalDbm }) => signalDbm);
  const rates = course.map(({ insideBps: bps }) => bps);
  const has = (values: readonly (number | null)[]) =>
    values.filter((value) => value !== null).length >= LEAST_OF_COURSE;
  return (
    <>
      <td
        className={`${FIGURE} ${signal !== null && signal.median < WEAK_SIGNAL_DBM ? 'font-semibold text-starved' : ''}`}
      >
        {signal === null ? 'not told' : Math.round(signal.median)}
      </td>
      <td className={FIGURE}>{signal === null ? '' : `${Math.round(signal.least)} to ${Math.round(signal.most)}`}</td>
      <td className={FIGURE}>{linkRateBps === null ? 'not told' : rateWords(linkRateBps)}</td>
      <td className={FIGURE}>{insideBps === null ? 'not measured' : rateWords(insideBps)}</td>
      <td className={`${CELL} !align-middle`}>
        {has(signals) ? (
          <CourseLine
            {...{ values: signals, low: FAINT_DBM, high: LOUD_DBM, className: 'text-delay' }}
            label={`Signal, from ${Math.round(signal!.least)} to ${Math.round(signal!.most)} dBm`}
          />
        ) : has(rates) ? (
          <CourseLine
            {...{ values: rates, low: 0, high: Math.max(...rates.map((bps) => bps ?? 0)), className: 'text-down' }}
            label={`Rate inside, around ${rateWords(insideBps)}`}
          />
        ) : null}
      </td>
      <td className={FIGURE}>{runs}</td>
      <td className={`${CELL} whitespace-nowrap text-quiet`}>{agoWords(nowMs - newestMs)}</td>
    </>
  );
}
