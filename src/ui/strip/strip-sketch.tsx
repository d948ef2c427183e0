import { SKETCH, type SketchDrawing } from './sketch-drawing';

/** A strip for a row of the ledger: the same roles and directions, no words. */
export function StripSketch({ drawing }: { readonly drawing: SketchDrawing }) {
  const { down, up, delay, downWidth, upWidth } = drawing;
  return (
    <svg viewBox={`0 0 ${SKETCH.width} ${SKETCH.height}`} className="block h-9 w-32" aria-hidden="true">
      <path d={down} stroke="var(--down)" strokeWidth={downWidth} />
      <path d={up} stroke="var(--up)" strokeWidth={upWidth} />
      <path d={`M0 ${SKETCH.axis}H${SKETCH.width}`} stroke="var(--ink)" strokeWidth="0.6" />
      <path d={delay} stroke="var(--delay)" strokeWidth="1.7" strokeLinecap="round" />
    </svg>
  );
}
