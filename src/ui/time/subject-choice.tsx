'use client';

import { useRouter } from 'next/navigation';
import type { ShownSubject } from '@/services';

interface SubjectChoiceProps {
  readonly subjects: readonly ShownSubject[];
  readonly subject: ShownSubject;
}

/** What is looked at over time: a line, or a device over one link. */
export function SubjectChoice({ subjects, subject }: SubjectChoiceProps) {
  const router = useRouter();
  const of = (kind: ShownSubject['kind']) => subjects.filter((each) => each.kind === kind);
  return (
    <label className="flex min-w-0 flex-wrap items-baseline gap-x-2">
      <span className="text-quiet">Over time:</span>
      <select
        className="field !w-auto max-w-full !min-h-9 font-semibold"
        value={subject.key}
        onChange={(event) => router.push(`/time?of=${encodeURIComponent(event.target.value)}`)}
      >
        <optgroup label="Lines">
          {of('line').map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </optgroup>
        <optgroup label="Devices">
          {of('device').map(({ key, name, occasions }) => (
            <option key={key} value={key}>
              {name} · {occasions} {occasions === 1 ? 'occasion' : 'occasions'}
            </option>
          ))}
        </optgroup>
      </select>
    </label>
  );
}
