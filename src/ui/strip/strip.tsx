import { useId } from 'react';
import { delayWords, nominalRateFigure, rateFigure, type Phase, type StripData } from '@/core';
import { areaPath, dotsPath, scaleStrip, type StripScale, type StripYardsticks } from './strip-scale';

const PHASE_WORDS: Record<Phase, string> = {
  idle: 'idle',
  download: 'download',
  settle: 'settle',
  upload: 'upload',
  both: 'both at once',
  paced: 'paced UDP',
};

interface StripProps {
  readonly data: StripData;
  readonly yardsticks: StripYardsticks;
  readonly width?: number;
  readonly height?: number;
}

function Phases({ data, scale }: { readonly data: StripData; readonly scale: StripScale }) {
  return data.phases.map(({ phase, fromMs, toMs }) => {
    const x = scale.x(fromMs);
    const narrow = scale.x(toMs) - x < 44;
    return (
      <g key={fromMs}>
        <path d={`M${x} 6V${scale.laneBottom}`} stroke="var(--hairline)" strokeWidth="1" />
        {!(narrow && phase === 'settle') && (
          <text x={x + 5} y="15" className="fill-quiet text-[12px]">
            {PHASE_WORDS[phase]}
          </text>
        )}
      </g>
    );
  });
}

function Yardstick({ y, rateBps, scale, below }: { y: number; rateBps: number; scale: StripScale; below: boolean }) {
  return (
    <g>
      <path d={`M0 ${y}H${scale.width}`} stroke="var(--ink)" strokeWidth="1.1" strokeDasharray="7 5" />
      <text
        x={scale.width - 4}
        y={below ? y + 13 : y - 4}
        textAnchor="end"
        className="figure fill-ink stroke-sheet text-[11px] [paint-order:stroke] [stroke-width:4px]"
      >
        {Number.isInteger(rateBps / 1e6) ? nominalRateFigure(rateBps) : rateFigure(rateBps)} Mb/s
      </text>
    </g>
  );
}

function DelayLane({ data, scale }: { readonly data: StripData; readonly scale: StripScale }) {
  const { laneTop, laneBottom, topMs, width } = scale;
  return (
    <g>
      <path d={`M0 ${laneBottom}H${width}`} stroke="var(--hairline)" />
      <path d={`M0 ${laneTop}H${width}`} stroke="var(--hairline)" strokeDasharray="1 4" />
      <text x={width - 4} y={laneTop + 12} textAnchor="end" className="figure fill-quiet text-[11px]">
        {topMs} ms
      </text>
      {data.idleMedianMs !== null && (
        <>
          <path
            d={`M0 ${scale.delayY(data.idleMedianMs)}H${width}`}
            stroke="var(--delay)"
            strokeWidth="1"
            strokeDasharray="2 3"
          />
          <text
            x="4"
            y={laneTop + 12}
            className="fill-quiet stroke-sheet text-[11.5px] [paint-order:stroke] [stroke-width:4px]"
          >
            delay, idle {delayWords(data.idleMedianMs)}
          </text>
        </>
      )}
      <path d={dotsPath(data, scale)} stroke="var(--delay)" strokeWidth="3" strokeLinecap="round" fill="none" />
    </g>
  );
}

/**
 * One drawing of a run on one time axis: download up from the axis, upload down from it, and below a lane of delay
 * dots. What is kept but not counted is hatched, the yardstick dashed. The same live and from the record.
 */
export function Strip({ data, yardsticks, width = 960, height = 300 }: StripProps) {
  const id = useId();
  const scale = scaleStrip(data, yardsticks, width, height);
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="block w-full bg-sheet" role="img" aria-label="The run over time">
      <defs>
        <pattern id={`${id}-moss`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill="var(--up)" opacity="0.35" />
          <rect width="3.6" height="7" fill="var(--up)" />
        </pattern>
        <pattern id={`${id}-hatch`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <path d="M0 0V6" stroke="var(--quiet)" strokeWidth="1.4" opacity="0.55" />
        </pattern>
      </defs>
      <Phases data={data} scale={scale} />
      <path d={areaPath(data.down, scale, scale.downY)} fill="var(--down)" />
      <path d={areaPath(data.up, scale, scale.upY)} fill={`url(#${id}-moss)`} stroke="var(--up)" strokeWidth="0.8" />
      {data.discarded.map(({ fromMs, toMs }) => (
        <g key={fromMs}>
          <rect
            x={scale.x(fromMs)}
            y={20}
            width={Math.max(0, scale.x(toMs) - scale.x(fromMs))}
            height={scale.laneTop - 26}
            fill="var(--sheet)"
            opacity="0.55"
          />
          <rect
            x={scale.x(fromMs)}
            y={20}
            width={Math.max(0, scale.x(toMs) - scale.x(fromMs))}
            height={scale.laneTop - 26}
            fill={`url(#${id}-hatch)`}
          />
        </g>
      ))}
      <path d={`M0 ${scale.axisY}H${width}`} stroke="var(--ink)" strokeWidth="1.2" />
      {yardsticks.downBps !== null && (
        <Yardstick y={scale.downY(yardsticks.downBps)} rateBps={yardsticks.downBps} scale={scale} below={false} />
      )}
      {yardsticks.upBps !== null && (
        <Yardstick y={scale.upY(yardsticks.upBps)} rateBps={yardsticks.upBps} scale={scale} below />
      )}
      <DelayLane data={data} scale={scale} />
    </svg>
  );
}
