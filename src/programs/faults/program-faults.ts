import { filledSentence } from '@/wire';

/** What keeps a program from starting: a stable code and a sentence with the next step; `{name}` is a fact. */
export const PROGRAM_FAULTS = {
  'port-busy': 'Port {port} is taken by another program. Stop that one, or choose another port: --port {other}.',
  'port-forbidden': 'Port {port} may not be opened by this user. Choose one above 1023: --port 4870.',
  'port-invalid': '{port} is not a port. Give a whole number from 1 to 65535: --port 4870.',
  'port-range-invalid': '{range} is not a range of ports. Give the first and the last: --channel-ports 4900-4931.',
  'data-not-writable':
    'The data folder {folder} cannot be written ({reason}). Make it writable, or choose another: --data FOLDER.',
  'data-full': 'The disk of the data folder {folder} is full. Make room, or choose another: --data FOLDER.',
  'data-in-use':
    'The data folder {folder} is in use by process {pid}. Stop that one, or choose another: --data FOLDER.',
  'data-missing': 'There is no database in {folder}. Name the folder that the console uses: --data FOLDER.',
  'nobody-yet':
    'Nobody may sign in yet. Start the console, and open the one-time link that it prints at its first start.',
  'person-unknown': 'There is nobody called {name} here. Name one of these: {names}.',
  'store-failed':
    'The database in {folder} cannot be opened ({reason}). Restore it from a copy, or choose another folder: --data FOLDER.',
  'store-damaged':
    'The database in {folder} is damaged ({reason}). Put a copy back: npm run restore -- {copy} --data {folder}',
  'store-newer':
    'The database in {folder} was used by a newer version of this program ({reason}). Start that version, or put a copy of before back: npm run restore -- {copy} --data {folder}',
  'store-foreign':
    'The database in {folder} is not one of this program ({reason}). Choose another folder: --data FOLDER.',
  'copy-missing': 'There is no copy in {folder}. Name the folder that the backup wrote.',
  'copy-no-room':
    'A copy needs {needed} GB free in {folder}, so that as much stays free as the records take, and there are {free}. Make room, or keep samples for a shorter time in the set-up.',
  'copy-exists': '{folder} is there already. Name a folder that is not: a copy is never written over.',
  'practice-config': 'The practice lines cannot be read: {complaints}. Correct {file}.',
  'trust-missing':
    'A peer needs the public key of the console that it serves. Copy it from the set-up page: --trust KEY.',
  'trust-invalid':
    '{key} is not a public key. Copy all 43 characters from the set-up page of the console: --trust KEY.',
  'udp-port-missing': 'Plain or keyed packets are answered on a port of their own. Give it too: --udp PORT.',
  'udp-key-unusable':
    'There is no key in {file}. Give a file that holds one, as text or in hexadecimal digits after 0x, the same as at the other end.',
  'certificate-half':
    'A certificate needs its key, and a key its certificate. Give both: --tls-cert FILE --tls-key FILE.',
  'certificate-unusable':
    'The certificate {file} cannot be used ({reason}). Give a PEM file with the certificate and one with its key.',
  'log-level-invalid': '{level} is not a level of the log. Give one of {levels}: --log-level info.',
  'unit-hidden':
    'This service would not start: it does not see what people have at home, and there lies {hidden}. Put it where the whole machine has it, such as below /opt, and print the unit from there.',
  'part-stopped': 'The {part} stopped while starting. Look at the lines above for the reason, then start again.',
} as const;

export type ProgramFaultCode = keyof typeof PROGRAM_FAULTS;

export class ProgramFault extends Error {
  constructor(
    readonly code: ProgramFaultCode,
    facts: Record<string, string | number> = {},
  ) {
    super(filledSentence(PROGRAM_FAULTS[code], facts));
  }
}

/** Turns the error of a `listen` into a fault with the next step. */
export function listenFault(error: NodeJS.ErrnoException, port: number): ProgramFault {
  if (error.code === 'EACCES') return new ProgramFault('port-forbidden', { port });
  return new ProgramFault('port-busy', { port, other: port + 10 });
}
