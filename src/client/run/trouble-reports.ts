import type { TroubleCode } from '@/core';

export interface TroubleReport {
  readonly code: TroubleCode;
  readonly detail: string;
}

/** What an error says of itself, for a trouble's detail: "TypeError: Load failed". */
export function errorWords(error: unknown): string {
  return error instanceof Error ? `${error.name}: ${error.message}` : String(error);
}

/** Passes on what a transport could not do; what was reported before anybody heard is kept until somebody does. */
export class TroubleReports {
  #early: TroubleReport[] = [];
  #hear: ((report: TroubleReport) => void) | null = null;

  report(code: TroubleCode, detail = ''): void {
    if (this.#hear === null) this.#early.push({ code, detail });
    else this.#hear({ code, detail });
  }

  hear(listener: (report: TroubleReport) => void): void {
    this.#hear = listener;
    this.#early.splice(0).forEach(listener);
  }
}
