'use client';

interface NarrowChoiceProps {
  readonly name: string;
  readonly label: string;
  readonly value: string | undefined;
  readonly options: readonly (readonly [string, string])[];
  readonly onChoose: (value: string) => void;
}

/** One way of narrowing a list: any, or one of the options. */
export function NarrowChoice({ name, label, value, options, onChoose }: NarrowChoiceProps) {
  return (
    <label className="text-sm text-quiet">
      {label}
      <select
        name={name}
        value={value ?? ''}
        onChange={(event) => onChoose(event.target.value)}
        className="field ml-2 !min-h-8 !w-auto max-w-[14rem] !py-0"
      >
        <option value="">any</option>
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
