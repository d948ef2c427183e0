import { addedDelayWords, rateFigure } from '@/core';
import { DRAWN, dotLanes, type Drawn, type DotLane } from './chosen-dots';
import type { DrawnRun } from './drawn-run';

const [WIDTH, HEIGHT, PAD] = [300, 52, 5];
const COLORS: Readonly<Record<Drawn, string>> = { down: 'var(--down)', up: 'var(--up)', added: 'var(--delay)' };
const NAMES: Readonly<Record<Drawn, string>> = { down: 'down', up: 'up', added: 'added delay' };

function spanWords({ drawn, least, most, median }: DotLane): string {
  const figure = (value: number) => (drawn === 'added' ? addedDelayWords(value) : rateFigure(value));
  const unit = drawn === 'added' ? '' : ' Mb/s';
  return `${figure(least)} to ${figure(most)}${unit}, median ${figure(median)}`;
}

function Lane({ lane }: { readonly lane: DotLane }) {
  const x = (share: number) => PAD + share * (WIDTH - 2 * PAD);
  const y = (share: number) => HEIGHT - PAD - share * (HEIGHT - 2 * PAD);
  return (
    <figure className="min-w-0 flex-1 basis-52">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block h-auto w-full" aria-hidden="true">
        <path d={`M0 ${HEIGHT - PAD}H${WIDTH}`} stroke="var(--hairline)" />
        <path
          d={`M0 ${y(lane.medianY)}H${WIDTH}`}
          stroke={COLORS[lane.drawn]}
          strokeDasharray="3 3"
          strokeOpacity="0.6"
        />
        {lane.dots.map((dot) => (
          <circle key={dot.id} cx={x(dot.x)} cy={y(dot.y)} r="2.6" fill={COLORS[lane.drawn]} fillOpacity="0.8" />
        ))}
      </svg>
      <figcaption className="text-xs text-quiet">
        {NAMES[lane.drawn]}: {spanWords(lane)}
      </figcaption>
    </figure>
  );
}

interface ChosenPictureProps {
  readonly runs: readonly DrawnRun[];
  /** How many are chosen; those further down that were never looked at are not drawn. */
  readonly chosen: number;
}

/** The chosen runs as dots over time: down, up and what load added, each from 0 up. */
export function ChosenPicture({ runs, chosen }: ChosenPictureProps) {
  const lanes = dotLanes(runs);
  if (lanes.length === 0) return null;
  return (
    <div className="w-full" role="group" aria-label="The chosen runs over time">
      <div className="flex flex-wrap gap-x-6 gap-y-1">
        {DRAWN.flatMap((drawn) => lanes.filter((lane) => lane.drawn === drawn)).map((lane) => (
          <Lane key={lane.drawn} lane={lane} />
        ))}
      </div>
      {runs.length < chosen && (
        <p className="text-xs text-quiet">
          The {runs.length} that were looked at, of {chosen}: scroll down for more of them, or hold them side by side.
        </p>
      )}
    </div>
  );
}
