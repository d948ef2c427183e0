import type { StandingOrder } from '@/wire';

/** The open connection of a device that stands by. */
export interface StandingLink {
  /** By what host the device reaches the console; absent: not known. */
  readonly consoleHost?: string | null;
  send(order: StandingOrder): void;
  close(): void;
}

/** Which devices stand by now: each in one tab. Forgotten with the process; the devices come back by themselves. */
export class StandingDevices {
  readonly #links = new Map<string, StandingLink>();

  /** A device stands by from now on. An older tab of the same device is dismissed. Returns what ends it. */
  stand(deviceId: string, link: StandingLink): () => void {
    this.dismiss(deviceId, 'elsewhere');
    this.#links.set(deviceId, link);
    return () => {
      if (this.#links.get(deviceId) === link) this.#links.delete(deviceId);
    };
  }

  isPresent(deviceId: string): boolean {
    return this.#links.has(deviceId);
  }

  /** False when the device does not stand by. */
  send(deviceId: string, order: StandingOrder): boolean {
    const link = this.#links.get(deviceId);
    link?.send(order);
    return link !== undefined;
  }

  dismiss(deviceId: string, reason: 'removed' | 'elsewhere'): void {
    const link = this.#links.get(deviceId);
    if (link === undefined) return;
    this.#links.delete(deviceId);
    link.send({ kind: 'dismissed', reason });
    link.close();
  }
}
