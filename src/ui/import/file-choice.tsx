'use client';

import { useState } from 'react';

interface FileChoiceProps {
  readonly onFile: (file: File) => void;
  /** Name of the one that is open; null: none is. */
  readonly chosen: string | null;
}

/** A place to drop a file, or to choose one. */
export function FileChoice({ onFile, chosen }: FileChoiceProps) {
  const [over, setOver] = useState(false);
  return (
    <label
      className={`flex cursor-pointer flex-wrap items-baseline gap-x-3 border-[1.5px] border-dashed px-4 py-3 ${over ? 'border-down bg-sheet' : 'border-quiet'}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const [file] = event.dataTransfer.files;
        if (file !== undefined) onFile(file);
      }}
    >
      <span className="font-semibold underline decoration-hairline underline-offset-4">
        {chosen === null ? 'Choose a file' : 'Choose another file'}
      </span>
      <span className="text-quiet">{chosen ?? 'or drop it here: CSV, JSON or NDJSON, up to 50 MB'}</span>
      <input
        type="file"
        className="sr-only"
        accept=".csv,.tsv,.txt,.json,.ndjson,.jsonl,text/csv,application/json"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file !== undefined) onFile(file);
          // The same file again is a choice as well.
          target.value = '';
        }}
      />
    </label>
  );
}
