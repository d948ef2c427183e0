import { yardstickWords, type Yardstick } from '@/core';

interface YardstickArithmeticProps {
  readonly down: Yardstick;
  readonly up: Yardstick;
}

/** Why the yardstick is what it is, spelled out for each direction. */
export function YardstickArithmetic({ down, up }: YardstickArithmeticProps) {
  return (
    <section aria-label="Yardstick" className="mt-3">
      <h2 className="sr-only">Yardstick</h2>
      <dl className="grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1 text-sm">
        {(
          [
            ['yardstick down', down],
            ['yardstick up', up],
          ] as const
        ).map(([label, yardstick]) => (
          <div key={label} className="contents">
            <dt className="text-quiet">{label}</dt>
            <dd>{yardstickWords(yardstick).join('; ')}.</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
