import {
  Chart,
  Decimation,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  type ChartDataset,
  type ChartOptions,
} from 'chart.js';
import annotationPlugin, { type AnnotationOptions } from 'chartjs-plugin-annotation';
import { median, rateFigure, type LevelShift, type OverTime, type SideQuantity } from '@/core';
import type { TimeSeries } from '@/services';
import { calendarTicks, daysOf } from './time-axis';
import {
  DRAWN_RATES,
  type Drawn,
  type LowerQuantity,
  type PaperColors,
  type Size,
  type TimeSpan,
} from './time-messages';

Chart.register(Decimation, Filler, LineController, LineElement, LinearScale, PointElement, annotationPlugin);

type Point = { x: number; y: number };
type Data = ChartDataset<'line', Point[]>;

/** As the worker loads it. */
export const PAPER_FONT = 'Atkinson Hyperlegible Next Variable';
const FONT = { family: `"${PAPER_FONT}", system-ui, sans-serif`, size: 12 } as const;
const MOST_TICKS = 12;
/** A label with room about it, px. */
const TICK_WIDTH = 88;
/** Above the highest of what was measured or promised. */
const ROOM = 1.12;
/** From so many occasions on dots lie on each other, and are drawn smaller. */
const MANY = 400;
/** From so many points in sight on, only the extremes of what falls on one pixel are drawn. */
const DRAWN_POINTS = 1600;

/** A colour of the paper, thinner. */
const thin = (hex: string, share: number) =>
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

function pointsOf({ series, places }: PictureParts, quantity: SideQuantity): Point[] {
  const { startedAtMs, [quantity]: values } = series.occasions;
  return places.get(quantity)!.map((place) => ({ x: startedAtMs[place]!, y: values[place]! / unitOf(quantity) }));
}

/** The median of each day, at its middle; a day without an occasion parts the line. */
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
function promisedOf({ series, whole }: PictureParts, direction: 'down' | 'up'): Point[] {
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
function quantitySets(parts: PictureParts, quantity: SideQuantity, colors: PaperColors): Data[] {
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

function promiseSets(parts: PictureParts, colors: PaperColors): Data[] {
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
function shiftMarks(
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
function flagMarks({ series }: PictureParts, colors: PaperColors): [string, AnnotationOptions][] {
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

/** The picture of a subject over time, drawn by Chart.js: rates above, one delay below, on one axis of time. */
export class TimePicture {
  #chart: Chart<'line', Point[]>;
  #colors: PaperColors;
  #lower: LowerQuantity;
  #span: TimeSpan;

  constructor(
    canvas: OffscreenCanvas,
    private readonly parts: PictureParts,
    { colors, lower, size, span }: { colors: PaperColors; lower: LowerQuantity; size: Size; span: TimeSpan | null },
  ) {
    this.#colors = colors;
    this.#lower = lower;
    this.#span = span ?? parts.whole;
    canvas.width = size.width * size.ratio;
    canvas.height = size.height * size.ratio;
    this.#chart = new Chart(canvas as unknown as HTMLCanvasElement, {
      type: 'line',
      data: { datasets: this.#datasets() },
      options: this.#options(size),
    });
    this.#chart.resize(size.width, size.height);
  }

  /** Where the drawing lies now. */
  get drawn(): Drawn {
    const { left, right, top, bottom } = this.#chart.chartArea;
    return { left, right, top, bottom, span: this.#span };
  }

  show(span: TimeSpan | null): void {
    this.#span = span ?? this.parts.whole;
    const x = this.#chart.options.scales!['x']!;
    [x.min, x.max] = [this.#span.fromMs, this.#span.toMs];
    this.#chart.update('none');
  }

  resize({ width, height, ratio }: Size): void {
    this.#chart.options.devicePixelRatio = ratio;
    this.#chart.resize(width, height);
  }

  paint(colors: PaperColors, lower: LowerQuantity): void {
    [this.#colors, this.#lower] = [colors, lower];
    this.#chart.data.datasets = this.#datasets();
    const { width, height } = this.#chart;
    this.#chart.options = this.#options({ width, height, ratio: this.#chart.options.devicePixelRatio ?? 1 });
    this.#chart.update('none');
  }

  #datasets(): Data[] {
    const quantities = [...DRAWN_RATES, this.#lower];
    return [
      ...promiseSets(this.parts, this.#colors),
      ...quantities.flatMap((quantity) => quantitySets(this.parts, quantity, this.#colors)),
    ];
  }

  /** Bands may reach further than anything that was measured: the picture need not. */
  #most(quantities: readonly SideQuantity[]): number {
    const measured = quantities.flatMap((quantity) => pointsOf(this.parts, quantity).map(({ y }) => y));
    const promised = quantities.flatMap((quantity) =>
      quantity === 'down' || quantity === 'up' ? promisedOf(this.parts, quantity).map(({ y }) => y) : [],
    );
    return ROOM * [...measured, ...promised].reduce((most, y) => Math.max(most, y), 1e-3);
  }

  #options({ ratio }: Size): ChartOptions<'line'> {
    const { ink, quiet, hairline } = this.#colors;
    const { timeZone, shows } = this.parts;
    const title = (text: string) => ({ display: true, text, color: quiet, font: FONT, padding: 0 });
    const figures = { color: quiet, font: FONT, maxTicksLimit: 6, padding: 6, includeBounds: false };
    const marks = Object.fromEntries([
      ...[...DRAWN_RATES, this.#lower].flatMap((quantity) =>
        shiftMarks(quantity, shows.get(quantity)!.shifts, this.#colors),
      ),
      ...flagMarks(this.parts, this.#colors),
    ]);
    return {
      ...{
        responsive: false,
        animation: false,
        events: [],
        devicePixelRatio: ratio,
        layout: { padding: { top: 16, right: 8 } },
      },
      scales: {
        x: {
          ...{
            type: 'linear',
            min: this.#span.fromMs,
            max: this.#span.toMs,
            grid: { color: thin(hairline, 0.6), tickLength: 4 },
          },
          ...{ border: { color: ink }, ticks: { color: quiet, font: FONT, maxRotation: 0, autoSkip: false } },
          afterBuildTicks: (scale) => {
            const ticks = calendarTicks(
              scale.min,
              scale.max,
              timeZone,
              Math.min(MOST_TICKS, Math.floor(scale.chart.width / TICK_WIDTH)),
            );
            scale.ticks = ticks.map(({ atMs, label }) => ({ value: atMs, label }));
          },
          afterTickToLabelConversion: (scale) => {
            const ticks = calendarTicks(
              scale.min,
              scale.max,
              timeZone,
              Math.min(MOST_TICKS, Math.floor(scale.chart.width / TICK_WIDTH)),
            );
            scale.ticks.forEach((tick, index) => (tick.label = ticks[index]?.label ?? ''));
          },
        },
        yLower: {
          ...{
            type: 'linear',
            axis: 'y',
            position: 'left',
            stack: 'y',
            stackWeight: 1.6,
            beginAtZero: true,
            border: { color: ink },
          },
          ...{
            title: title(this.#lower === 'loss' ? '%' : 'ms'),
            max: this.#most([this.#lower]),
            grid: { color: thin(hairline, 0.5), drawTicks: false },
          },
          ticks: { ...figures, maxTicksLimit: 4 },
        },
        yRate: {
          ...{
            type: 'linear',
            axis: 'y',
            position: 'left',
            stack: 'y',
            stackWeight: 3,
            beginAtZero: true,
            border: { color: ink },
            title: title('Mb/s'),
            max: this.#most(DRAWN_RATES),
          },
          ...{ grid: { color: thin(hairline, 0.5), drawTicks: false } },
          ticks: {
            ...figures,
            callback: (value) => (Number(value) === 0 ? '0' : rateFigure(Number(value) * 1e6).replace(/\.0+$/, '')),
          },
        },
      },
      plugins: {
        decimation: { enabled: true, algorithm: 'min-max', threshold: DRAWN_POINTS },
        annotation: { annotations: marks },
      },
    };
  }
}
