import type { SideFigures, SideQuantity } from '@/core';

const [WIDTH, ROW, PAD] = [460, 24, 10];
/** Dots of one tray that would lie on each other are drawn so far apart, at most so many rows. */
const [SPREAD, LAYERS] = [3.4, 3];
const ROLE: Readonly<Record<SideQuantity, string>> = {
  ...{ down: 'var(--down)', up: 'var(--up)', idle: 'var(--delay)', addedDown: 'var(--delay)' },
  ...{ addedUp: 'var(--delay)', jitter: 'var(--delay)', loss: 'var(--delay)' },
};

interface Scale {
  readonly at: (value: number) => number;
}

/** All dots on one axis that begins at 0: then lengths can be held against each other. */
function scaleOf({ trays }: SideFigures): Scale {
  const most = Math.max(1e-9, ...trays.map((tray) => tray.most ?? 0));
  const least = Math.min(0, ...trays.map((tray) => tray.least ?? 0));
  return { at: (value) => PAD + ((value - least) / (most - least)) * (WIDTH - 2 * PAD) };
}

/** The runs of each tray as dots on a common axis, with the median and its interval. */
export function DotRows({ figures, names }: { readonly figures: SideFigures; readonly names: readonly string[] }) {
  const scale = scaleOf(figures);
  const height = figures.trays.length * ROW;
  const color = ROLE[figures.quantity];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="block h-auto w-full max-w-[460px]"
      role="img"
      aria-label={`${names.join(', ')}: each run a dot, the median a line. The figures stand beside it.`}
    >
      {figures.trays.map(({ dots, median, interval }, tray) => {
        const middle = tray * ROW + ROW / 2;
        return (
          <g key={names[tray]}>
            <path d={`M${PAD} ${middle}H${WIDTH - PAD}`} stroke="var(--hairline)" strokeWidth="1" />
            {interval !== null && (
              <rect
                x={scale.at(interval.low)}
                y={middle - 7}
                width={Math.max(1, scale.at(interval.high) - scale.at(interval.low))}
                height="14"
                fill={color}
                fillOpacity="0.16"
              />
            )}
            {dots.map(({ id, value }, index) => (
              <circle
                key={id}
                cx={scale.at(value)}
                cy={middle + SPREAD * ((index % LAYERS) - 1)}
                r="2.6"
                fill="none"
                stroke={color}
                strokeWidth="1.1"
              />
            ))}
            {median !== null && (
              <path
                d={`M${scale.at(median)} ${middle - 9}v18`}
                stroke={color}
                strokeWidth="2.4"
                strokeLinecap="round"
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
