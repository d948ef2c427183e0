interface CourseLineProps {
  /** In the order of time; null: not known. */
  readonly values: readonly (number | null)[];
  readonly low: number;
  readonly high: number;
  /** In words, for whoever does not see it. */
  readonly label: string;
  readonly className: string;
}

const WIDTH = 120;
const HEIGHT = 22;
const RADIUS = 1.4;

/** How a value went from run to run: a line with a dot for each, from the oldest on the left to the newest. */
export function CourseLine({ values, low, high, label, className }: CourseLineProps) {
  const x = (place: number) => RADIUS + (place / Math.max(1, values.length - 1)) * (WIDTH - 2 * RADIUS);
  const y = (value: number) => {
    const share = high === low ? 0.5 : (Math.min(high, Math.max(low, value)) - low) / (high - low);
    return HEIGHT - RADIUS - share * (HEIGHT - 2 * RADIUS);
  };
  const dots = values.flatMap((value, place) => (value === null ? [] : [{ x: x(place), y: y(value) }]));
  return (
    <svg
      role="img"
      aria-label={label}
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={className}
    >
      <polyline
        points={dots.map((dot) => `${dot.x.toFixed(1)},${dot.y.toFixed(1)}`).join(' ')}
        fill="none"
        stroke="currentColor"
        strokeWidth={1}
        opacity={0.5}
      />
      {dots.map((dot) => (
        <circle key={dot.x} cx={dot.x} cy={dot.y} r={RADIUS} fill="currentColor" />
      ))}
    </svg>
  );
}
