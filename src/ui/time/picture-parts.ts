import type { ChartDataset } from 'chart.js';
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { median, type LevelShift, type OverTime, type SideQuantity } from '@/core';
import type { TimeSeries } from '@/services';
import { daysOf } from './time-axis';
import { DRAWN_RATES, type PaperColors, type TimeSpan } from './time-messages';

export type Point = { x: number; y: number };
export type Data = ChartDataset<'line', Point[]>;

/** As the worker loads it. */
export const PAPER_FONT = 'Atkinson Hyperlegible Next Variable';
export const FONT = { family: `"${PAPER_FONT}", system-ui, sans-serif`, size: 12 } as const;
/** From so many occasions on dots lie on each other, and are drawn smaller. */
const MANY = 400;

/** A colour of the paper, thinner. */
export const thin = (hex: string, share: number) =>
  `${hex}${Math.round(share * 255)
    .toString(16)
    .padStart(2, '0')}`;

/** Everything that the picture is made of, once it was worked out. */
export interface PictureParts {
  readonly series: TimeSeries;
  readonly shows: ReadonlyMap<SideQuantity, OverTime>;
  /** Indices of the occasions that have a value, by quantity: bands and shifts count by them. */
  readonly places: ReadonlyMap<SideQuantity, readonly number[]>;
  readonly whole: TimeSpan;
  readonly timeZone: string;
}

const SCALE_OF = (quantity: SideQuantity) => (quantity === 'down' || quantity === 'up' ? 'yRate' : 'yLower');
const unitOf = (quantity: SideQuantity) =>
  quantity === 'down' || quantity === 'up' ? 1e6 : quantity === 'loss' ? 0.01 : 1;

export function pointsOf({ series, places }: PictureParts, quantity: SideQuantity): Point[] {
  const { startedAtMs, [quantity]: values } = series.occasions;
  return places.get(quantity)!.map((place) => ({ x: startedAtMs[place]!, y: values[place]! / unitOf(quantity) }));
}

/** A day may have 25 hours. */
const NEXT_DAY_MS = 26 * 3600_000;

/** The median of each day, where its occasions lie; a day without any parts the line. */
function dailyOf(points: readonly Point[], timeZone: string): Point[] {
  const days = daysOf(
    points.map(({ x }) => x),
    timeZone,
  );
  const daily: Point[] = [];
  for (let from = 0; from < points.length;) {
    let to = from;
    while (to < points.length && days[to] === days[from]) to += 1;
    const of = points.slice(from, to);
    if (from > 0 && days[from]! - days[from - 1]! > NEXT_DAY_MS) daily.push({ x: of[0]!.x, y: NaN });
    daily.push({ x: of.reduce((sum, { x }) => sum + x, 0) / of.length, y: median(of.map(({ y }) => y))! });
    from = to;
  }
  return daily;
}

function bandOf(parts: PictureParts, quantity: SideQuantity, side: 'low' | 'high'): Point[] {
  const { startedAtMs } = parts.series.occasions;
  const { bands } = parts.shows.get(quantity)!;
  return parts.places.get(quantity)!.flatMap((place, index) => {
    const band = bands[index] ?? null;
    return band === null ? [] : [{ x: startedAtMs[place]!, y: band[side] / unitOf(quantity) }];
  });
}

/** What a promise was, as steps to the end of the picture. */
export function promisedOf({ series, whole }: PictureParts, direction: 'down' | 'up'): Point[] {
  const key = `${direction}Bps` as const;
  if (series.plans.length > 0) {
    const steps = series.plans.map((step) => ({ x: Math.max(step.fromMs, whole.fromMs), y: step[key] / 1e6 }));
    return [...steps, { x: whole.toMs, y: steps.at(-1)!.y }];
  }
  const bps = series.yardstick?.[key] ?? null;
  return bps === null ? [] : [whole.fromMs, whole.toMs].map((x) => ({ x, y: bps / 1e6 }));
}

const colorOf = (quantity: SideQuantity, colors: PaperColors) =>
  quantity === 'down' || quantity === 'up' ? colors[quantity] : colors.delay;

/** Dots of one quantity, the band of what is usual behind them, and the line of the daily medians. */
export function quantitySets(parts: PictureParts, quantity: SideQuantity, colors: PaperColors): Data[] {
  const points = pointsOf(parts, quantity);
  const color = colorOf(quantity, colors);
  const shared = { yAxisID: SCALE_OF(quantity), parsing: false, normalized: true } as const;
  const radius = points.length > MANY ? 1.4 : 2.4;
  return [
    {
      ...shared,
      data: bandOf(parts, quantity, 'low'),
      borderWidth: 0,
      pointRadius: 0,
      tension: 0,
      stepped: 'after',
      fill: false,
    },
    {
      ...{ ...shared, data: bandOf(parts, quantity, 'high'), borderWidth: 0, pointRadius: 0, tension: 0 },
      ...{ stepped: 'after', fill: '-1', backgroundColor: thin(color, 0.1) },
    },
    {
      ...{
        ...shared,
        data: points,
        showLine: false,
        pointRadius: radius,
        pointStyle: quantity === 'up' ? 'triangle' : 'circle',
      },
      ...{
        pointBorderColor: thin(color, points.length > MANY ? 0.5 : 0.8),
        pointBackgroundColor: 'transparent',
        pointBorderWidth: 1.1,
      },
    },
    {
      ...shared,
      data: dailyOf(points, parts.timeZone),
      borderColor: color,
      borderWidth: 1.8,
      pointRadius: 0,
      tension: 0,
    },
  ];
}

export function promiseSets(parts: PictureParts, colors: PaperColors): Data[] {
  return DRAWN_RATES.map((direction) => ({
    ...{
      data: promisedOf(parts, direction),
      yAxisID: 'yRate',
      parsing: false,
      normalized: true,
      stepped: 'before' as const,
    },
    ...{ borderColor: thin(colors.ink, 0.55), borderWidth: 1, borderDash: [5, 3], pointRadius: 0 },
  }));
}

/** Where a level changed: a line, with the span in which it was. */
export function shiftMarks(
  quantity: SideQuantity,
  shifts: readonly LevelShift[],
  colors: PaperColors,
): [string, AnnotationOptions][] {
  return shifts.map(({ fromMs, untilMs }, index) => [
    `shift ${quantity} ${index}`,
    {
      ...{ type: 'box', xScaleID: 'x', yScaleID: SCALE_OF(quantity), xMin: fromMs, xMax: untilMs },
      ...{ backgroundColor: thin(colorOf(quantity, colors), 0.14), borderWidth: 0, drawTime: 'beforeDatasetsDraw' },
    },
  ]);
}

/** Flags carry the number under which they are listed below the picture. */
export function flagMarks({ series }: PictureParts, colors: PaperColors): [string, AnnotationOptions][] {
  return series.flags.map(({ atMs }, index) => [
    `flag ${index}`,
    {
      ...{
        type: 'line',
        xScaleID: 'x',
        xMin: atMs,
        xMax: atMs,
        borderColor: colors.ink,
        borderWidth: 1,
        borderDash: [1, 3],
      },
      label: {
        ...{ display: true, content: String(index + 1), position: 'end', yAdjust: -2, padding: { x: 5, y: 2 } },
        ...{ backgroundColor: colors.ink, color: colors.paper, font: { ...FONT, size: 10 }, borderRadius: 2 },
      },
    },
  ]);
}
