'use client';

import { useEffect, useRef, useState } from 'react';
import { laneColors, type Frame, type LaneColors } from './lane-picture';

interface LaneCanvasProps {
  readonly width: number;
  readonly height: number;
  readonly fromMs: number;
  readonly untilMs: number;
  /** Draws all of it anew. */
  readonly paint: (ctx: CanvasRenderingContext2D, frame: Frame, colors: LaneColors) => void;
}

/** Counts up when the paper changes its colours. */
function useTheme(): number {
  const [count, setCount] = useState(0);
  useEffect(() => {
    const again = () => setCount((before) => before + 1);
    const dark = window.matchMedia('(prefers-color-scheme: dark)');
    dark.addEventListener('change', again);
    const observer = new MutationObserver(again);
    observer.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
    return () => {
      dark.removeEventListener('change', again);
      observer.disconnect();
    };
  }, []);
  return count;
}

/** A picture that is drawn when what it shows has changed, once a frame at most. */
export function LaneCanvas({ width, height, fromMs, untilMs, paint }: LaneCanvasProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  useEffect(() => {
    const frame = requestAnimationFrame(() => {
      const element = canvas.current;
      const ctx = element?.getContext('2d');
      if (element === null || ctx === null || ctx === undefined) return;
      const ratio = window.devicePixelRatio;
      element.width = Math.round(width * ratio);
      element.height = Math.round(height * ratio);
      ctx.scale(ratio, ratio);
      paint(ctx, { width, height, fromMs, untilMs }, laneColors());
    });
    return () => cancelAnimationFrame(frame);
  }, [width, height, fromMs, untilMs, paint, theme]);
  return <canvas ref={canvas} aria-hidden style={{ width, height }} className="block" />;
}
