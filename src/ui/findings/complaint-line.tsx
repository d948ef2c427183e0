'use client';

import { useState } from 'react';
import type { ShownComplaint } from '@/services';
import { WallTime } from '../parts/wall-time';

const WHAT_WORDS: Readonly<Record<string, string>> = {
  calls: 'calls and meetings are slow',
  pages: 'pages and mail are slow',
  copies: 'copying files is slow',
  everything: 'everything is slow',
};

interface ComplaintLineProps {
  readonly complaint: ShownComplaint;
  readonly see: (complaintId: string) => Promise<string | null>;
  readonly hunt: (deviceId: string | null) => Promise<string | null>;
}

const ACTION = 'underline decoration-hairline underline-offset-4 hover:decoration-ink';

/** What somebody said from where it is slow, with its minute. */
export function ComplaintLine({ complaint, see, hunt }: ComplaintLineProps) {
  const [said, setSaid] = useState<string | null>(null);
  const { id, deviceName, spotName, what, atMs, deviceId } = complaint;
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 gap-y-0.5 border-b border-hairline py-1.5">
      <p className="min-w-0 flex-1 basis-[34rem] break-words">
        <svg viewBox="0 0 20 12" className="mr-2 inline-block h-3 w-5 text-thin" aria-hidden="true">
          <path
            d="M2 1h16v7H9l-4 3.4V8H2z"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.8"
            strokeLinejoin="round"
          />
        </svg>
        {deviceName || 'Somebody'}
        {spotName !== null && ` (${spotName})`}: “{WHAT_WORDS[what] ?? what}”,{' '}
        <span className="text-quiet">
          <WallTime atMs={atMs} />
        </span>
      </p>
      <span className="flex shrink-0 items-baseline gap-4 text-sm">
        <button type="button" className={ACTION} onClick={() => void see(id).then(setSaid)}>
          seen
        </button>
        <button type="button" className={ACTION} onClick={() => void hunt(deviceId).then(setSaid)}>
          hunt
        </button>
      </span>
      {said !== null && (
        <p role="alert" className="basis-full text-sm text-starved">
          {said}
        </p>
      )}
    </li>
  );
}
