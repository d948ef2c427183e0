import type { Session, Varbind } from 'net-snmp';
import type { SnmpLogin } from '@/core';
import { LookFault } from './look-fault';

/** It takes a MB: an agent that asks nobody by SNMP does without. */
const loadSnmp = async () => (await import('net-snmp')).default;
type Snmp = Awaited<ReturnType<typeof loadSnmp>>;

export interface SnmpAccess extends SnmpLogin {
  readonly target: string;
}

/** What many devices come with. */
export const USUAL_LOGIN: SnmpLogin = { port: 161, community: 'public', user: null };

const PATIENCE_MS = 2500;
/** So many rows with one answer: a switch of 24 ports says a column in one or two. */
const REPETITIONS = 30;
/** A device that never comes to an end is left then. */
const MOST_ROWS = 5000;

/** Whether an object stands behind another one in the order of SNMP: number by number. */
function isAfter(one: string, other: string): boolean {
  const [a, b] = [one.split('.').map(Number), other.split('.').map(Number)];
  const place = a.findIndex((part, index) => part !== b[index]);
  return place >= 0 && (b[place] === undefined || a[place]! > b[place]);
}

/** A read-only session with a device. */
export class SnmpSession {
  readonly #session: Session;
  #asked = 0;

  static async open(access: SnmpAccess): Promise<SnmpSession> {
    return new SnmpSession(await loadSnmp(), access);
  }

  private constructor(
    private readonly snmp: Snmp,
    private readonly access: SnmpAccess,
  ) {
    const options = { port: access.port, timeout: PATIENCE_MS, retries: 1 };
    const { user, target } = access;
    this.#session =
      user === null
        ? snmp.createSession(target, access.community ?? 'public', { ...options, version: snmp.Version2c })
        : snmp.createV3Session(
            target,
            {
              name: user.name,
              level:
                user.authKey === null
                  ? snmp.SecurityLevel.noAuthNoPriv
                  : user.privKey === null
                    ? snmp.SecurityLevel.authNoPriv
                    : snmp.SecurityLevel.authPriv,
              ...(user.authKey === null ? {} : { authProtocol: snmp.AuthProtocols.sha, authKey: user.authKey }),
              ...(user.privKey === null ? {} : { privProtocol: snmp.PrivProtocols.aes, privKey: user.privKey }),
            },
            { ...options, version: snmp.Version3 },
          );
    this.#session.on('error', () => undefined);
  }

  /** So many requests were sent. */
  get asked(): number {
    return this.#asked;
  }

  /** Single values; null: it has none. Throws LookFault. */
  get(oids: readonly string[]): Promise<(Varbind['value'] | null)[]> {
    this.#asked += 1;
    return new Promise((resolve, reject) =>
      this.#session.get([...oids], (error, varbinds = []) =>
        error === null
          ? resolve(varbinds.map((varbind) => (this.snmp.isVarbindError(varbind) ? null : varbind.value)))
          : reject(this.#fault(error)),
      ),
    );
  }

  /**
   * A column of a table: what stands behind its number, and the value. A device that does not know it gives none. One that says the
   * same again, or what lies before, has come to its end, whatever it says of that. Throws LookFault.
   */
  async column(oid: string): Promise<ReadonlyMap<string, Varbind['value']>> {
    const found = new Map<string, Varbind['value']>();
    let from = oid;
    while (found.size < MOST_ROWS) {
      const rows = await this.#bulk(from);
      for (const { oid: row, value } of rows.filter((varbind) => !this.snmp.isVarbindError(varbind))) {
        if (!row.startsWith(`${oid}.`) || !isAfter(row, from)) return found;
        found.set(row.slice(oid.length + 1), value);
        from = row;
      }
      if (rows.length === 0 || rows.some((varbind) => this.snmp.isVarbindError(varbind))) return found;
    }
    return found;
  }

  #bulk(from: string): Promise<Varbind[]> {
    this.#asked += 1;
    return new Promise((resolve, reject) =>
      this.#session.getBulk([from], 0, REPETITIONS, (error, varbinds) =>
        error === null ? resolve((varbinds as unknown as Varbind[][]).flat()) : reject(this.#fault(error)),
      ),
    );
  }

  close(): void {
    this.#session.close();
  }

  #fault(error: Error): LookFault {
    const { target } = this.access;
    if (/timed out/i.test(error.message)) return new LookFault('snmp-silent', { target });
    if (/unknown user|wrong digest|decryption|not in time|authorization|usm/i.test(error.message))
      return new LookFault('snmp-refused', { target });
    return new LookFault('snmp-odd', { target, why: error.message });
  }
}

/** A counter or gauge; those of 64 bits come as bytes. Null: it is no number. */
export function numberOf(value: unknown): number | null {
  if (typeof value === 'number') return value;
  if (typeof value === 'bigint') return Number(value);
  if (!Buffer.isBuffer(value)) return null;
  return value.length <= 8 ? value.reduce((sum, byte) => sum * 256 + byte, 0) : null;
}

export const textOf = (value: unknown): string | null => {
  const text = Buffer.isBuffer(value) ? value.toString('utf8') : typeof value === 'string' ? value : '';
  return (
    text
      .replace(/[^\x20-\x7e\u00a0-\uffff]/g, ' ')
      .trim()
      .slice(0, 120) || null
  );
};
