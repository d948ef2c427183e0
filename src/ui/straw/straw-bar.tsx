import type { Direction } from '@/core';

/** Room to the right of the yardstick's notch, so that more than the yardstick can be seen too. */
const BEYOND_NOTCH = 1.12;
const LENGTH = 100;
const BORE = 9;

interface StrawBarProps {
  readonly direction: Direction;
  readonly rateBps: number | null;
  readonly yardstickBps: number | null;
  readonly className?: string;
}

/**
 * A result as a length of straw: its length is the share of the yardstick, the notch is the yardstick itself. Down is
 * solid cobalt, up is striped moss. Without a yardstick the straw is only outlined, since its length would mean nothing.
 */
export function StrawBar({ direction, rateBps, yardstickBps, className = '' }: StrawBarProps) {
  if (rateBps === null) return <span className={`block h-[11px] ${className}`} />;
  const share = yardstickBps === null ? BEYOND_NOTCH : Math.min(rateBps / yardstickBps, BEYOND_NOTCH);
  const length = Math.max(3, (share / BEYOND_NOTCH) * (LENGTH - 2));
  const notch = (LENGTH - 2) / BEYOND_NOTCH;
  const colour = direction === 'down' ? 'text-down' : 'text-up';
  const hollow = yardstickBps === null;
  return (
    <svg
      viewBox={`0 0 ${LENGTH} 11`}
      preserveAspectRatio="none"
      className={`block h-[11px] w-full ${colour} ${className}`}
      aria-hidden="true"
    >
      {direction === 'up' && (
        <defs>
          <pattern id="moss-stripe" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="4" height="4" fill="var(--paper)" />
            <rect width="2.3" height="4" fill="var(--up)" />
          </pattern>
        </defs>
      )}
      <rect
        x="0.5"
        y="1"
        width={length}
        height={BORE}
        rx="1"
        fill={hollow ? 'none' : direction === 'up' ? 'url(#moss-stripe)' : 'currentColor'}
        stroke="currentColor"
        strokeWidth="1"
        strokeDasharray={hollow ? '3 2' : undefined}
        vectorEffect="non-scaling-stroke"
      />
      {!hollow && (
        <path
          d={`M${notch} 0V11`}
          stroke="var(--ink)"
          strokeWidth="1.5"
          vectorEffect="non-scaling-stroke"
          fill="none"
        />
      )}
    </svg>
  );
}
