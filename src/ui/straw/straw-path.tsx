import { useId } from 'react';
import { nominalRateFigure, rateFigure, rateWords, type StrawSegment } from '@/core';
import { boreOf, layStraw, tubePath } from './straw-shape';

const WIDTH = 1200;
const HEIGHT = 96;
const MIDDLE = 47;
/** Width of a letter of the labels, on average. */
const LETTER = 7.6;

interface StrawPathProps {
  readonly segments: readonly StrawSegment[];
  /** What flowed, bits per second; null when nothing was measured. */
  readonly flowBps: number | null;
  readonly title: string;
  /** Where a click on a segment leads; absent where segments lead nowhere. */
  readonly hrefOf?: (segment: StrawSegment) => string;
  /** The segment that was chosen. */
  readonly chosen?: StrawSegment['kind'] | undefined;
}

function shortened(label: string, letters: number): string {
  return label.length <= letters ? label : `${label.slice(0, Math.floor(letters) - 1)}…`;
}

function capacityWords({ kind, capacityBps, proven }: StrawSegment): string {
  if (proven !== undefined)
    return proven.downBps === null && proven.upBps === null
      ? 'not proven yet'
      : `proven ${rateFigure(proven.downBps)} / ${rateFigure(proven.upBps)}`;
  if (capacityBps === null) return '';
  return kind === 'line' || kind === 'tunnel'
    ? `${nominalRateFigure(capacityBps)} Mb/s`
    : `${rateFigure(capacityBps)} Mb/s`;
}

/** The product's picture: the path as a straw, its bore the log of what each part can carry, the stripe what flows. */
export function StrawPath({ segments, flowBps, title, hrefOf, chosen }: StrawPathProps) {
  const id = useId();
  const laid = layStraw(segments, WIDTH);
  const wall = tubePath(laid, MIDDLE, (piece) => piece.bore);
  const flowBore = flowBps === null ? 0 : boreOf(flowBps);
  const flow = tubePath(laid, MIDDLE, ({ bore }) => Math.max(2, Math.min(flowBore, bore - 4)));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full"
      role={hrefOf === undefined ? 'img' : 'group'}
      aria-labelledby={`${id}-title`}
    >
      <title id={`${id}-title`}>{title}</title>
      <defs>
        <pattern id={`${id}-stripe`} width="13" height="13" patternUnits="userSpaceOnUse" patternTransform="rotate(32)">
          <rect width="13" height="13" fill="var(--sheet)" />
          <rect width="6" height="13" fill="var(--down)" opacity="0.82" />
        </pattern>
      </defs>
      <path d={wall} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" strokeLinejoin="round" />
      {flowBps !== null && <path d={flow} fill={`url(#${id}-stripe)`} />}
      {laid.map(({ segment, fromX, toX, bore, known }) => {
        const middle = (fromX + toX) / 2;
        return (
          <g key={`${segment.kind}-${segment.label}`}>
            {!known && (
              <path
                d={`M${fromX + 14} ${MIDDLE - bore / 2}H${toX - 14}M${fromX + 14} ${MIDDLE + bore / 2}H${toX - 14}`}
                stroke="var(--sheet)"
                strokeWidth="2.4"
                strokeDasharray="5 6"
              />
            )}
            <ellipse
              cx={fromX + 10}
              cy={MIDDLE}
              rx="3.4"
              ry={bore / 2}
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth="1.4"
            />
            {segment.kind === chosen && (
              <path d={`M${fromX + 24} 23H${toX - 24}`} stroke="var(--ink)" strokeWidth="2" />
            )}
            <text x={middle} y="16" textAnchor="middle" className="fill-ink text-[15px]">
              {shortened(segment.label, (toX - fromX) / LETTER)}
            </text>
            <text
              x={middle}
              y={segment.kink ? HEIGHT - 4 : HEIGHT - 8}
              textAnchor="middle"
              className={`figure text-[12.5px] ${segment.kink ? 'fill-starved font-semibold' : 'fill-quiet'}`}
            >
              {segment.kinkWords ?? (segment.kink ? `kink ${capacityWords(segment)}` : capacityWords(segment))}
            </text>
          </g>
        );
      })}
      {hrefOf !== undefined &&
        laid.map(({ segment, fromX, toX }) => (
          <a
            key={`${segment.kind}-${segment.label}-link`}
            href={hrefOf(segment)}
            aria-label={`Keep only what crosses ${segment.label}`}
            className="group outline-none"
          >
            <rect
              x={fromX + 12}
              y="0"
              width={toX - fromX - 14}
              height={HEIGHT}
              rx="3"
              fill="transparent"
              className="stroke-transparent group-hover:stroke-hairline group-focus-visible:stroke-ink"
              strokeWidth="2"
            />
          </a>
        ))}
      <ellipse cx={WIDTH - 10} cy={MIDDLE} rx="4" ry={(laid.at(-1)?.bore ?? 0) / 2} fill="var(--ink)" opacity="0.85" />
      <desc>{flowBps === null ? 'Nothing was measured.' : `${rateWords(flowBps)} flowed down.`}</desc>
    </svg>
  );
}
