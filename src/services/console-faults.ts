import type { FaultCatalogue } from '@/wire';

/** Everything that the console may answer instead of doing it. The table in docs/errors.md is held against this one. */
export const CONSOLE_FAULTS = {
  'code-unknown': {
    status: 404,
    title: 'Code unknown',
    sentence: 'No office here has the code {code}. Read it again from the board; it has no 0, O, 1, I or L.',
  },
  'not-joined': {
    status: 401,
    title: 'Not joined',
    sentence: 'This device has not joined an office. Open the address with the code that the board shows.',
  },
  'site-missing': {
    status: 404,
    title: 'No office yet',
    sentence: 'There is no office yet. Name it in the set-up first.',
  },
  'device-unknown': {
    status: 404,
    title: 'Device unknown',
    sentence: 'There is no such device in this office. Choose another or enter it as a new one.',
  },
  'device-busy': {
    status: 409,
    title: 'Device already measuring',
    sentence:
      '{device} is measuring already, in another tab or window. Let that run end or cancel it, then start again.',
  },
  'name-taken': {
    status: 409,
    title: 'Name taken',
    sentence: 'There is another {what} named {name} in this office. Choose that one, or another name.',
  },
  'peer-missing': {
    status: 409,
    title: 'No peer for this reach',
    sentence: 'No peer of reach {reach} is set up for this office. Add one in the set-up.',
  },
  'run-unknown': {
    status: 404,
    title: 'Run unknown',
    sentence: 'There is no such run. It may have been removed; look in the ledger.',
  },
  'run-key-wrong': {
    status: 401,
    title: 'Run key wrong',
    sentence: 'The key does not belong to this run. Only the device that was granted a run can hand it in.',
  },
  'samples-missing': {
    status: 404,
    title: 'No samples',
    sentence: 'This run ended before anything was measured, so there are no samples. Run it again.',
  },
  'request-malformed': {
    status: 400,
    title: 'Request malformed',
    sentence: 'The request cannot be read: {complaint}. Correct it and send it again.',
  },
  'request-too-large': {
    status: 413,
    title: 'Request too large',
    sentence: 'The request is larger than {limit} bytes. Send less; a run of ten minutes fits.',
  },
  'store-full': {
    status: 507,
    title: 'Disk full or read-only',
    sentence:
      'The console cannot write to its data folder ({reason}). Make room or make it writable; the device keeps the result and hands it in again.',
  },
} as const satisfies FaultCatalogue;

export type ConsoleFaultCode = keyof typeof CONSOLE_FAULTS;
