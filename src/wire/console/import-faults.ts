import type { FaultCatalogue } from '../fault/fault';

/** What may stand in the way of bringing runs in from a file. */
export const BRING_IN_FAULTS = {
  'import-too-large': {
    status: 413,
    title: 'File too large',
    sentence:
      'The file is larger than {most} MB. Part it into several, each with its own first line, and bring them in one after the other.',
  },
  'import-too-many': {
    status: 413,
    title: 'Too many lines',
    sentence:
      'The file holds more than {most} runs, and nothing was brought in. Part it into several, each with its own first line.',
  },
  'import-busy': {
    status: 429,
    title: 'Other files are open',
    sentence:
      'Several files are about to be brought in already. Finish or close one of them, then choose this one again.',
  },
  'import-unknown': {
    status: 404,
    title: 'File not here any more',
    sentence:
      'That file was brought in, closed or taken back, or the program has started again since. Choose it once more.',
  },
  'import-part': {
    status: 409,
    title: 'Part out of order',
    sentence: 'The parts of a file come one after the other: the next one begins at byte {expected}. Send that one.',
  },
  'import-unreadable': {
    status: 422,
    title: 'Not a table of runs',
    sentence:
      'This is no CSV with several columns, no list in JSON and no NDJSON. Save the table as CSV and choose that file.',
  },
  'import-stopped': {
    status: 409,
    title: 'Stopped',
    sentence: 'It was stopped before its end. Nothing was brought in; begin again when you want to.',
  },
  'import-taking': {
    status: 409,
    title: 'Being brought in',
    sentence: 'This file is being brought in right now. Wait until it is, or stop it.',
  },
  'import-twice': {
    status: 409,
    title: 'The same file',
    sentence:
      '{who} has brought this very file in already, as {name}. Take that back first if it shall be read in another way.',
  },
  'import-refused': {
    status: 422,
    title: 'A line cannot be read',
    sentence:
      'Line {line} cannot be read as a run, so nothing was brought in. Mend it in the file, or say that such lines are left out.',
  },
  'import-nothing': {
    status: 422,
    title: 'Nothing to bring in',
    sentence: 'No line of the file is a run that is not here already. Look at what each column is read as.',
  },
} as const satisfies FaultCatalogue;
