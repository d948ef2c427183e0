/** What the console writes down for whoever keeps it running: one line an event, nothing secret. */
export interface Log {
  debug(facts: object, event: string): void;
  info(facts: object, event: string): void;
  warn(facts: object, event: string): void;
  error(facts: object, event: string): void;
}

/** Writes nothing down. */
export const NO_LOG: Log = {
  debug: () => undefined,
  info: () => undefined,
  warn: () => undefined,
  error: () => undefined,
};
