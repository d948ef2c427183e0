import { Worker } from 'node:worker_threads';
import { diagnose, type Diagnosis, type DiagnosisInput, type Occasion } from '@/core';
import { SentOccasions, type Errand } from './sent-occasions';

interface Answer {
  readonly id: number;
  readonly diagnosis: Diagnosis;
}

/** A thread that diagnoses. One that ends is started again; what was asked of it meanwhile is done here. */
export class DiagnosingThread {
  #worker: Worker | null = null;
  #asked = 0;
  #sent = new SentOccasions<Occasion>();
  readonly #waiting = new Map<number, (diagnosis: Diagnosis | null) => void>();

  constructor(private readonly file: string) {}

  /** `office`: whose occasions these are; those that went there before are not sent again. */
  async diagnose(office: string, input: DiagnosisInput): Promise<Diagnosis> {
    const worker = this.#running();
    const id = (this.#asked += 1);
    const answer = new Promise<Diagnosis | null>((resolve) => this.#waiting.set(id, resolve));
    const { occasions, ...rest } = input;
    worker.postMessage({ id, rest, errand: this.#sent.errand(office, occasions) } satisfies Asked);
    return (await answer) ?? diagnose(input);
  }

  async close(): Promise<void> {
    await this.#worker?.terminate();
  }

  #running(): Worker {
    if (this.#worker !== null) return this.#worker;
    const worker = new Worker(this.file);
    this.#sent = new SentOccasions();
    worker.on('message', ({ id, diagnosis }: Answer) => this.#settle(id, diagnosis));
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

  #settle(id: number, diagnosis: Diagnosis | null): void {
    this.#waiting.get(id)?.(diagnosis);
    this.#waiting.delete(id);
  }
}

/** What the thread is asked. */
export interface Asked {
  readonly id: number;
  readonly rest: Omit<DiagnosisInput, 'occasions'>;
  readonly errand: Errand;
}
