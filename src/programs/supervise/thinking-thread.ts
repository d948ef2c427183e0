import { Worker } from 'node:worker_threads';
import {
  diagnose,
  sideBySide,
  type Diagnosis,
  type DiagnosisInput,
  type Occasion,
  type SideBySide,
  type Tray,
} from '@/core';
import { packed } from './packed-members';
import { SentOccasions, type NumberedList, type Parcel } from './sent-occasions';

/** A tray with its runs as a text. */
export interface SentTray {
  readonly name: string;
  readonly runs: string;
}

/** What the thread is asked. */
export type Question =
  | { readonly kind: 'diagnose'; readonly rest: Omit<DiagnosisInput, 'occasions'>; readonly list: NumberedList }
  | { readonly kind: 'compare'; readonly trays: readonly SentTray[] };
/** What it is sent: a parcel needs no answer. */
export type Asked = (Question & { readonly id: number }) | { readonly kind: 'parcel'; readonly parcel: Parcel };

export interface Answer {
  readonly id: number;
  readonly answer: Diagnosis | SideBySide;
}

/** A thread that works out what takes long. One that ends is started again; what was asked of it meanwhile is done here. */
export class ThinkingThread {
  #worker: Worker | null = null;
  #asked = 0;
  #sent = new SentOccasions<Occasion>();
  readonly #waiting = new Map<number, (answer: Answer['answer'] | null) => void>();

  /** It starts at once: by the first question it has read what it thinks with. */
  constructor(private readonly file: string) {
    this.#running();
  }

  /** `office`: whose occasions these are; those that went there before are not sent again. */
  async diagnose(office: string, input: DiagnosisInput): Promise<Diagnosis> {
    const { occasions, ...rest } = input;
    const worker = this.#running();
    const post = (parcel: Parcel) => worker.postMessage({ kind: 'parcel', parcel } satisfies Asked);
    const list = this.#sent.send(office, occasions, post);
    return ((await this.#ask(worker, { kind: 'diagnose', rest, list })) as Diagnosis | null) ?? diagnose(input);
  }

  /** Trays of runs held side by side. */
  async compare(trays: readonly Tray[]): Promise<SideBySide> {
    const sent = trays.map(({ name, runs }) => ({ name, runs: packed(runs, 'traits') }));
    const answer = (await this.#ask(this.#running(), { kind: 'compare', trays: sent })) as SideBySide | null;
    return answer ?? sideBySide(trays);
  }

  async close(): Promise<void> {
    await this.#worker?.terminate();
  }

  /** Null when the thread ended before it had answered. */
  #ask(worker: Worker, question: Question): Promise<Answer['answer'] | null> {
    const id = (this.#asked += 1);
    const answer = new Promise<Answer['answer'] | null>((resolve) => this.#waiting.set(id, resolve));
    worker.postMessage({ ...question, id } satisfies Asked);
    return answer;
  }

  #running(): Worker {
    if (this.#worker !== null) return this.#worker;
    const worker = new Worker(this.file);
    this.#sent = new SentOccasions();
    worker.on('message', ({ id, answer }: Answer) => this.#settle(id, answer));
    worker.on('error', () => undefined);
    worker.on('exit', () => {
      if (this.#worker === worker) this.#worker = null;
      for (const id of [...this.#waiting.keys()]) this.#settle(id, null);
    });
    // It does not keep the console from ending.
    worker.unref();
    this.#worker = worker;
    return worker;
  }

  #settle(id: number, answer: Answer['answer'] | null): void {
    this.#waiting.get(id)?.(answer);
    this.#waiting.delete(id);
  }
}
