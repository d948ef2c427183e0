import { FAULT_NAMES, type Fault } from '@/core';
import type { ShownMark, ShownOutage } from '@/services';
import { xOf, type Frame } from './lane-picture';

const FAULT_LOOKS: Readonly<Record<Fault, string>> = {
  ours: 'bg-ink text-paper',
  line: 'bg-starved text-paper',
  theirs: 'bg-thin text-ink',
  inside: 'bg-quiet text-paper',
  'line-or-theirs': 'bg-starved text-paper',
  unknown: 'border border-quiet',
};

/** Whose fault each silence was, above the lanes. */
export function Faults({ outages, frame }: { readonly outages: readonly ShownOutage[]; readonly frame: Frame }) {
  return (
    <div className="relative h-[1.15rem]" aria-hidden>
      {outages.map(({ id, fault, fromMs, untilMs }) => {
        const [from, until] = [
          Math.max(0, xOf(frame, fromMs)),
          Math.min(frame.width, xOf(frame, untilMs ?? frame.untilMs)),
        ];
        if (until < 0 || from > frame.width) return null;
        const width = Math.max(4, until - from);
        return (
          <span
            key={id}
            className={`absolute top-0 h-full overflow-hidden whitespace-nowrap px-0.5 text-[0.7rem] leading-[1.15rem] ${FAULT_LOOKS[fault]}`}
            style={{ left: from, width }}
          >
            {width > 44 ? FAULT_NAMES[fault] : ''}
          </span>
        );
      })}
    </div>
  );
}

/** While something was marked, behind the lanes. */
export function MarkBands({ marks, frame }: { readonly marks: readonly ShownMark[]; readonly frame: Frame }) {
  return marks.map(({ id, label, fromMs, untilMs }) => {
    const [from, until] = [xOf(frame, fromMs), xOf(frame, untilMs ?? frame.untilMs)];
    if (until < 0 || from > frame.width) return null;
    return (
      <span
        key={id}
        title={label}
        className="pointer-events-none absolute inset-y-0 border-x border-dashed border-quiet bg-ink/[0.07]"
        style={{ left: Math.max(0, from), width: Math.max(2, Math.min(frame.width, until) - Math.max(0, from)) }}
      />
    );
  });
}
