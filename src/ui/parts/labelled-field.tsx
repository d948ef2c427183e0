import type { ReactNode } from 'react';

interface LabelledFieldProps {
  readonly id: string;
  readonly label: string;
  readonly unit?: string;
  readonly hint?: string;
  readonly error?: string | undefined;
  readonly children: ReactNode;
}

/** A label, a field, its unit, and under it a hint or what is wrong with it. */
export function LabelledField({ id, label, unit, hint, error, children }: LabelledFieldProps) {
  return (
    <div>
      <label htmlFor={id} className="block text-sm text-quiet">
        {label}
      </label>
      <div className="flex items-baseline gap-2">
        {children}
        {unit !== undefined && <span className="shrink-0 text-sm text-quiet">{unit}</span>}
      </div>
      {error !== undefined ? (
        <p id={`${id}-error`} role="alert" className="mt-1 text-sm font-medium text-starved">
          {error}
        </p>
      ) : (
        hint !== undefined && <p className="mt-1 text-sm text-quiet">{hint}</p>
      )}
    </div>
  );
}
