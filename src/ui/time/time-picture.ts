import {
  Chart,
  Decimation,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  type ChartOptions,
  type Scale,
} from 'chart.js';
import annotationPlugin from 'chartjs-plugin-annotation';
import { rateFigure, type SideQuantity } from '@/core';
import {
  flagMarks,
  FONT,
  pointsOf,
  promisedOf,
  promiseSets,
  quantitySets,
  shiftMarks,
  thin,
  type Data,
  type PictureParts,
  type Point,
} from './picture-parts';
import { calendarTicks } from './time-axis';
import {
  DRAWN_RATES,
  type Drawn,
  type LowerQuantity,
  type PaperColors,
  type Size,
  type TimeSpan,
} from './time-messages';

Chart.register(Decimation, Filler, LineController, LineElement, LinearScale, PointElement, annotationPlugin);

const MOST_TICKS = 12;
/** A label with room about it, px. */
const TICK_WIDTH = 88;
/** Above the highest of what was measured or promised. */
const ROOM = 1.12;
/** From so many points in sight on, only the extremes of what falls on one pixel are drawn. */
const DRAWN_POINTS = 1600;

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
    const ticksOf = ({ min, max, chart }: Scale) =>
      calendarTicks(min, max, timeZone, Math.min(MOST_TICKS, Math.floor(chart.width / TICK_WIDTH)));
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
            scale.ticks = ticksOf(scale).map(({ atMs }) => ({ value: atMs }));
          },
          afterTickToLabelConversion: (scale) => {
            const ticks = ticksOf(scale);
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
