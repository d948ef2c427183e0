import { QueryTypes, type Sequelize } from 'sequelize';
import type { Alarm, AlarmRules, LineOccasion, QuietHours } from '@/core';

/** Somebody, or a program, that is told. */
export interface StoredRecipient {
  readonly id: string;
  /** Of one office; null: of all. */
  readonly siteId: string | null;
  readonly kind: 'mail' | 'webhook';
  /** An address of electronic mail, or a URL. */
  readonly target: string;
  /** By which a webhook's messages are signed, sealed with the console's key; null: a mail. */
  readonly secret: string | null;
  /** Whether a webhook may be at a private address. */
  readonly allowPrivate: boolean;
  readonly quiet: QuietHours | null;
  /** Whether the week is summed up on Mondays. */
  readonly digest: boolean;
  readonly paused: boolean;
  readonly byName: string;
  readonly madeAtMs: number;
  /** When the last sum of a week was made. */
  readonly digestAtMs: number;
}

/** Something that was told, from its beginning to its end. */
export interface StoredAlarm {
  readonly id: string;
  readonly siteId: string;
  readonly alarmKey: string;
  readonly alarm: Alarm;
  readonly beganAtMs: number;
  readonly endedAtMs: number | null;
}

/** A message on its way, or that has arrived, or has not. */
export interface StoredDelivery {
  readonly id: string;
  readonly recipientId: string;
  readonly eventId: string | null;
  readonly phase: 'began' | 'over' | 'digest' | 'test';
  readonly subject: string;
  readonly text: string;
  readonly madeAtMs: number;
  readonly nextTryAtMs: number;
  readonly tries: number;
  /** `dropped`: it was over before anybody was to be told that it had begun. */
  readonly state: 'waits' | 'sent' | 'failed' | 'dropped';
  readonly trouble: string | null;
  readonly endedAtMs: number | null;
}

/** Of the occasions that could tell, how many met the plan. */
export interface PlanMet {
  readonly met: number;
  readonly told: number;
}

const RECIPIENT_COLUMNS = [
  ...(['id', 'siteId', 'kind', 'target', 'secret', 'allowPrivate', 'quiet', 'digest', 'paused', 'byName'] as const),
  ...(['madeAtMs', 'digestAtMs'] as const),
] as const;
const DELIVERY_COLUMNS = [
  ...(['id', 'recipientId', 'eventId', 'phase', 'subject', 'text', 'madeAtMs', 'nextTryAtMs', 'tries'] as const),
  ...(['state', 'trouble', 'endedAtMs'] as const),
] as const;
// Words of the index `runs_of_occasions`, which has all of it.
const OF_OCCASION = `reach = 'internet' AND status = 'finished' AND evidence IN ('alone', 'practice')`;
/** Of the runs of an occasion, the share that met the plan, as SQL; NULL where none could tell. */
const MET = `avg(CASE verdict WHEN 'full' THEN 1 WHEN 'thin' THEN 0 WHEN 'starved' THEN 0 END)`;
/** An occasion met the plan when half of its runs did. */
const MET_FROM = 0.5;
const places = (columns: readonly string[]) => columns.map(() => '?').join(', ');

type RecipientRow = Omit<StoredRecipient, 'allowPrivate' | 'quiet' | 'digest' | 'paused'> & {
  readonly allowPrivate: number;
  readonly quiet: string | null;
  readonly digest: number;
  readonly paused: number;
};
const readRecipient = (row: RecipientRow): StoredRecipient => ({
  ...row,
  quiet: row.quiet === null ? null : (JSON.parse(row.quiet) as QuietHours),
  allowPrivate: row.allowPrivate === 1,
  digest: row.digest === 1,
  paused: row.paused === 1,
});

export class AlarmQueries {
  constructor(private readonly sequelize: Sequelize) {}

  /** Null: the office has said nothing of its own. */
  async rulesOf(siteId: string): Promise<AlarmRules | null> {
    const [row] = await this.#select<{ rules: string }>('SELECT rules FROM alarm_rules WHERE siteId = ?', [siteId]);
    return row === undefined ? null : (JSON.parse(row.rules) as AlarmRules);
  }

  async saveRules(siteId: string, rules: AlarmRules): Promise<void> {
    await this.#run('INSERT OR REPLACE INTO alarm_rules (siteId, rules) VALUES (?, ?)', [
      siteId,
      JSON.stringify(rules),
    ]);
  }

  async recipients(): Promise<StoredRecipient[]> {
    const rows = await this.#select<RecipientRow>('SELECT * FROM recipients ORDER BY madeAtMs, id', []);
    return rows.map(readRecipient);
  }

  async recipient(id: string): Promise<StoredRecipient | null> {
    const [row] = await this.#select<RecipientRow>('SELECT * FROM recipients WHERE id = ?', [id]);
    return row === undefined ? null : readRecipient(row);
  }

  async saveRecipient(recipient: StoredRecipient): Promise<void> {
    const { quiet, allowPrivate, digest, paused } = recipient;
    const row = {
      ...recipient,
      quiet: quiet === null ? null : JSON.stringify(quiet),
      ...{ allowPrivate: allowPrivate ? 1 : 0, digest: digest ? 1 : 0, paused: paused ? 1 : 0 },
    };
    // Not "or replace": that would take what was told with it.
    await this.#run(
      `INSERT INTO recipients (${RECIPIENT_COLUMNS.join(', ')}) VALUES (${places(RECIPIENT_COLUMNS)})
       ON CONFLICT (id) DO UPDATE SET ${RECIPIENT_COLUMNS.slice(1)
         .map((name) => `${name} = excluded.${name}`)
         .join(', ')}`,
      RECIPIENT_COLUMNS.map((name) => row[name]),
    );
  }

  async removeRecipient(id: string): Promise<void> {
    await this.#run('DELETE FROM recipients WHERE id = ?', [id]);
  }

  async openAlarms(siteId: string): Promise<StoredAlarm[]> {
    return this.#alarms('siteId = ? AND endedAtMs IS NULL', [siteId]);
  }

  async alarm(id: string): Promise<StoredAlarm | null> {
    return (await this.#alarms('id = ?', [id]))[0] ?? null;
  }

  /** The newest first. */
  async alarmsOf(siteId: string, limit: number): Promise<StoredAlarm[]> {
    return (await this.#alarms('siteId = ?', [siteId])).slice(0, limit);
  }

  /** An alarm begins or ends together with the messages about it: neither is there without the other. */
  async tell(
    change: { readonly began: StoredAlarm } | { readonly ended: StoredAlarm; readonly atMs: number } | null,
    deliveries: readonly StoredDelivery[],
  ): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      if (change !== null && 'began' in change) {
        const { id, siteId, alarmKey, alarm, beganAtMs } = change.began;
        await this.sequelize.query(
          'INSERT INTO alarm_events (id, siteId, alarmKey, alarm, beganAtMs) VALUES (?, ?, ?, ?, ?)',
          { replacements: [id, siteId, alarmKey, JSON.stringify(alarm), beganAtMs], transaction },
        );
      }
      if (change !== null && 'ended' in change) {
        await this.sequelize.query('UPDATE alarm_events SET endedAtMs = ? WHERE id = ?', {
          replacements: [change.atMs, change.ended.id],
          transaction,
        });
      }
      for (const delivery of deliveries)
        await this.sequelize.query(
          `INSERT INTO deliveries (${DELIVERY_COLUMNS.join(', ')}) VALUES (${places(DELIVERY_COLUMNS)})`,
          { replacements: DELIVERY_COLUMNS.map((name) => delivery[name]), transaction },
        );
    });
  }

  /** Messages to be tried now, the oldest first. */
  async due(nowMs: number, limit: number): Promise<StoredDelivery[]> {
    return this.#select<StoredDelivery>(
      `SELECT * FROM deliveries WHERE state = 'waits' AND nextTryAtMs <= ? ORDER BY madeAtMs LIMIT ?`,
      [nowMs, limit],
    );
  }

  async settle(
    id: string,
    changes: Partial<Pick<StoredDelivery, 'state' | 'tries' | 'trouble' | 'nextTryAtMs' | 'endedAtMs'>>,
  ) {
    const names = Object.keys(changes);
    await this.#run(`UPDATE deliveries SET ${names.map((name) => `${name} = ?`).join(', ')} WHERE id = ?`, [
      ...Object.values(changes),
      id,
    ]);
  }

  /** What a recipient was told, the newest first. */
  async deliveriesOf(recipientId: string, limit: number): Promise<StoredDelivery[]> {
    return this.#select<StoredDelivery>(
      'SELECT * FROM deliveries WHERE recipientId = ? ORDER BY madeAtMs DESC, id LIMIT ?',
      [recipientId, limit],
    );
  }

  /** Whether a recipient was told that an alarm had begun, or is still to be. */
  async beganFor(recipientId: string, eventId: string): Promise<StoredDelivery | null> {
    const [row] = await this.#select<StoredDelivery>(
      `SELECT * FROM deliveries WHERE recipientId = ? AND eventId = ? AND phase = 'began'`,
      [recipientId, eventId],
    );
    return row ?? null;
  }

  async forgetBefore(atMs: number): Promise<void> {
    await this.#run('DELETE FROM deliveries WHERE madeAtMs < ? AND state <> ?', [atMs, 'waits']);
    await this.#run('DELETE FROM alarm_events WHERE endedAtMs < ?', [atMs]);
  }

  /** Of the occasions of a line since a moment that could tell, how many met the plan. */
  async planMetSince(lineId: string, sinceMs: number): Promise<PlanMet> {
    const [row] = await this.#select<{ met: number | null; told: number }>(
      `SELECT SUM(met >= ${MET_FROM}) AS met, COUNT(met) AS told FROM (SELECT ${MET} AS met
         FROM runs INDEXED BY runs_of_occasions WHERE lineId = ? AND startedAtMs >= ? AND ${OF_OCCASION} GROUP BY setId)`,
      [lineId, sinceMs],
    );
    return { met: row!.met ?? 0, told: row!.told };
  }

  /** The newest occasions of a line, the newest first: whether those that could tell met the plan, and what load added. */
  async newestOfLine(lineId: string, limit: number): Promise<LineOccasion[]> {
    const rows = await this.#select<{ met: number | null; addedMs: number | null }>(
      `SELECT ${MET} AS met, avg(addedMs) AS addedMs, max(startedAtMs) AS atMs
       FROM (SELECT setId, verdict, addedMs, startedAtMs FROM runs INDEXED BY runs_of_occasions
         WHERE lineId = ? AND ${OF_OCCASION} ORDER BY startedAtMs DESC LIMIT ?)
       GROUP BY setId ORDER BY atMs DESC`,
      [lineId, limit],
    );
    return rows.map(({ met, addedMs }) => ({ planMet: met === null ? null : met >= MET_FROM, addedMs }));
  }

  async #alarms(where: string, values: readonly string[]): Promise<StoredAlarm[]> {
    const rows = await this.#select<Omit<StoredAlarm, 'alarm'> & { readonly alarm: string }>(
      `SELECT * FROM alarm_events WHERE ${where} ORDER BY beganAtMs DESC, id`,
      values,
    );
    return rows.map((row) => ({ ...row, alarm: JSON.parse(row.alarm) as Alarm }));
  }

  #select<Row extends object>(sql: string, replacements: readonly (string | number | null)[]): Promise<Row[]> {
    return this.sequelize.query<Row>(sql, { replacements: [...replacements], type: QueryTypes.SELECT });
  }

  async #run(sql: string, replacements: readonly (string | number | null)[]): Promise<void> {
    await this.sequelize.query(sql, { replacements: [...replacements] });
  }
}
