import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { pino, stdTimeFunctions, type Logger } from 'pino';
import { BoundedFile } from './bounded-file';

export const LOG_LEVELS = ['error', 'warn', 'info', 'debug'] as const;
export type LogLevel = (typeof LOG_LEVELS)[number];

/** Where a part writes, and how much; null: nowhere. */
export interface LogSettings {
  readonly folder: string | null;
  readonly level: LogLevel;
}

/** Four files of 5 MB for each part: months of an office, and never more. */
export const FILE_BYTES = 5_000_000;
export const OLDER_FILES = 3;

/** However it comes to stand in an entry, it is not written. */
const SECRETS = ['passphrase', 'token', 'ticket', 'cookie', 'authorization', 'runKey', 'turnKey', 'code'];

/** What an error was, without what it carries along: that of a database holds the statement, with every value in it. */
function errorFacts(error: unknown): object {
  if (!(error instanceof Error)) return { message: String(error) };
  const { name, message, stack } = error;
  return { name, message, stack };
}

/**
 * The log of one part: JSON lines (level, time as ISO 8601, part, event, facts) in a file of its own, which is followed
 * by the next when it is full. What cannot be written, on a full disk, is lost, and the part goes on.
 */
export function openLog({ folder, level }: LogSettings, part: string, mostBytes = FILE_BYTES): Logger {
  const options = {
    level: folder === null ? 'silent' : level,
    base: { part },
    messageKey: 'event',
    timestamp: stdTimeFunctions.isoTime,
    formatters: { level: (label: string) => ({ level: label }) },
    serializers: { err: errorFacts },
    redact: { paths: SECRETS.flatMap((name) => [name, `*.${name}`]), censor: '…' },
  };
  if (folder === null) return pino(options);
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    return pino(options, new BoundedFile(join(folder, part.replaceAll(' ', '-')), mostBytes, OLDER_FILES));
  } catch {
    return pino({ ...options, level: 'silent' });
  }
}
