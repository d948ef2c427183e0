import { QueryTypes, type Sequelize } from 'sequelize';
import type { Lane, LaneFigures, LaneMinute, Outage } from '@/core';

/** A lane as the console keeps it. */
export interface StoredLane extends Lane {
  readonly siteId: string;
  /** The agent that asks. */
  readonly deviceId: string;
  readonly place: number;
  readonly madeAtMs: number;
  /** Since when it is asked no more; what it said stays. Null: it is asked. */
  readonly removedAtMs: number | null;
  /** The begin of the last minute in which something was answered; null: never yet. */
  readonly answeredAtMs: number | null;
}

export interface StoredOutage extends Outage {
  readonly id: string;
  readonly siteId: string;
  readonly deviceId: string;
  /** Whether the agent's own link went by air. */
  readonly air: boolean;
}

/** What somebody wrote down beside the lanes: from when to when; null: it goes on. */
export interface StoredMark {
  readonly id: string;
  readonly siteId: string;
  readonly label: string;
  readonly byName: string;
  readonly fromMs: number;
  readonly untilMs: number | null;
}

/** A stretch of a lane. */
export interface LaneStep extends LaneFigures {
  readonly laneId: string;
  readonly fromMs: number;
}

const LANE_COLUMNS = [
  ...(['id', 'siteId', 'deviceId', 'name', 'kind', 'target', 'role', 'everyMs', 'place', 'madeAtMs'] as const),
  ...(['removedAtMs', 'answeredAtMs'] as const),
] as const;
const FIGURE_COLUMNS = ['sent', 'answered', 'lostThere', 'lostBack', 'minMs', 'medianMs', 'p95Ms', 'maxMs'] as const;
const FIGURES = FIGURE_COLUMNS.join(', ');
const figuresOf = (of: LaneFigures) => FIGURE_COLUMNS.map((name) => of[name]);
/** Values that are bound in one statement, at most. */
const MOST_BOUND = 900;
const places = (many: number) => Array.from({ length: many }, () => '?').join(', ');

const STEP_COLUMNS = ['laneId', 'fromMs', ...FIGURE_COLUMNS] as const;
type Maybe = number | null;
type StepRow = [string, number, number, number, number, number, Maybe, Maybe, Maybe, Maybe];
// Plain, one by one: there are thousands of them.
const stepOf = (row: StepRow): LaneStep => ({
  laneId: row[0],
  fromMs: row[1],
  sent: row[2],
  answered: row[3],
  lostThere: row[4],
  lostBack: row[5],
  minMs: row[6],
  medianMs: row[7],
  p95Ms: row[8],
  maxMs: row[9],
});

type OutageRow = Omit<StoredOutage, 'laneIds' | 'air'> & { readonly laneIds: string; readonly air: number };
const outageOf = ({ laneIds, air, ...row }: OutageRow): StoredOutage => ({
  ...row,
  laneIds: JSON.parse(laneIds) as string[],
  air: air !== 0,
});

export class LaneQueries {
  constructor(private readonly sequelize: Sequelize) {}

  async save(lane: StoredLane): Promise<void> {
    await this.sequelize.query(
      `INSERT INTO lanes (${LANE_COLUMNS.join(', ')}) VALUES (${places(LANE_COLUMNS.length)})
       ON CONFLICT (id) DO UPDATE SET name = excluded.name, kind = excluded.kind, target = excluded.target,
         role = excluded.role, everyMs = excluded.everyMs, place = excluded.place, removedAtMs = excluded.removedAtMs`,
      { replacements: LANE_COLUMNS.map((name) => lane[name]) },
    );
  }

  /** In their order; those that are asked no more too. */
  ofSite(siteId: string): Promise<StoredLane[]> {
    return this.#lanes('siteId = ?', siteId);
  }

  ofDevice(deviceId: string): Promise<StoredLane[]> {
    return this.#lanes('deviceId = ?', deviceId);
  }

  /** Loads of lines that are read, of all offices. */
  ofLines(): Promise<StoredLane[]> {
    return this.#lanes('role = ? AND removedAtMs IS NULL', 'line');
  }

  async byId(id: string): Promise<StoredLane | null> {
    return (await this.#lanes('id = ?', id))[0] ?? null;
  }

  /** Writes minutes down; one that is there already stays as it is. */
  async addMinutes(minutes: readonly LaneMinute[]): Promise<void> {
    const columns = FIGURE_COLUMNS.length + 3;
    const most = Math.floor(MOST_BOUND / columns);
    await this.sequelize.transaction(async (transaction) => {
      for (let from = 0; from < minutes.length; from += most) {
        const some = minutes.slice(from, from + most);
        await this.sequelize.query(
          `INSERT OR IGNORE INTO lane_minutes (laneId, fromMs, ${FIGURES}, raw)
           VALUES ${some.map(() => `(${places(columns)})`).join(', ')}`,
          {
            transaction,
            replacements: some.flatMap((each) => [
              ...[each.laneId, each.fromMs, ...figuresOf(each)],
              Buffer.from(each.raw),
            ]),
          },
        );
      }
      const answered = new Map<string, number>();
      for (const minute of minutes)
        if (minute.answered > 0) answered.set(minute.laneId, Math.max(answered.get(minute.laneId) ?? 0, minute.fromMs));
      // Those of one machine were answered in the same minute, nearly always.
      for (const atMs of new Set(answered.values())) {
        const laneIds = [...answered].flatMap(([laneId, at]) => (at === atMs ? [laneId] : []));
        await this.sequelize.query(
          `UPDATE lanes SET answeredAtMs = max(coalesce(answeredAtMs, 0), ?) WHERE id IN (${places(laneIds.length)})`,
          { transaction, replacements: [atMs, ...laneIds] },
        );
      }
    });
  }

  /** Whole minutes with their requests, in the order of time. */
  async minutes(laneIds: readonly string[], fromMs: number, untilMs: number): Promise<LaneMinute[]> {
    if (laneIds.length === 0) return [];
    return this.sequelize.query<LaneMinute>(
      `SELECT laneId, fromMs, ${FIGURES}, raw FROM lane_minutes
       WHERE laneId IN (${places(laneIds.length)}) AND fromMs >= ? AND fromMs < ? ORDER BY fromMs`,
      { replacements: [...laneIds, fromMs, untilMs], type: QueryTypes.SELECT },
    );
  }

  /** The packed requests of each minute, by lane and longer stretch: a day of eight lanes is 11 500 minutes, which come as few texts. */
  async rawByStretch(
    laneIds: readonly string[],
    stepMs: number,
    fromMs: number,
    untilMs: number,
  ): Promise<{ readonly laneId: string; readonly fromMs: number; readonly raws: Uint8Array[] }[]> {
    if (laneIds.length === 0) return [];
    const rows = await this.sequelize.query<{ laneId: string; beginMs: number; raws: string }>(
      `SELECT laneId, fromMs - fromMs % ? AS beginMs, group_concat(hex(raw)) AS raws FROM lane_minutes
       WHERE laneId IN (${places(laneIds.length)}) AND fromMs >= ? AND fromMs < ? GROUP BY laneId, beginMs ORDER BY beginMs`,
      { replacements: [stepMs, ...laneIds, fromMs, untilMs], type: QueryTypes.SELECT },
    );
    return rows.map(({ laneId, beginMs, raws }) => ({
      ...{ laneId, fromMs: beginMs },
      raws: raws.split(',').map((raw) => Buffer.from(raw, 'hex')),
    }));
  }

  /** The begin of the newest minute of some lanes that began before a moment; null: there is none. */
  async newestMinute(laneIds: readonly string[], beforeMs = Number.MAX_SAFE_INTEGER): Promise<number | null> {
    if (laneIds.length === 0) return null;
    const [found] = await this.sequelize.query<{ newest: number | null }>(
      `SELECT max(fromMs) AS newest FROM lane_minutes WHERE laneId IN (${places(laneIds.length)}) AND fromMs < ?`,
      { replacements: [...laneIds, beforeMs], type: QueryTypes.SELECT },
    );
    return found?.newest ?? null;
  }

  /** Figures of minutes (`stepMs` of a minute), or of longer stretches, by lane, in the order of time. */
  async steps(laneIds: readonly string[], stepMs: number, fromMs: number, untilMs: number): Promise<LaneStep[]> {
    if (laneIds.length === 0) return [];
    const [table, step] = stepMs === 60_000 ? ['lane_minutes', []] : (['lane_sums', [stepMs]] as [string, number[]]);
    // A day of eight lanes is 11 500 rows: as one text they come several times as fast.
    const columns = STEP_COLUMNS.join(', ');
    const [found] = await this.sequelize.query<{ text: string }>(
      `SELECT '[' || coalesce(group_concat(json_array(${columns}), ','), '') || ']' AS text FROM (
         SELECT ${columns} FROM ${table} WHERE laneId IN (${places(laneIds.length)})
         ${step.length > 0 ? 'AND stepMs = ?' : ''} AND fromMs >= ? AND fromMs < ? ORDER BY laneId, fromMs)`,
      { replacements: [...laneIds, ...step, fromMs, untilMs], type: QueryTypes.SELECT },
    );
    return (JSON.parse(found!.text) as StepRow[]).map(stepOf);
  }

  async addSums(stepMs: number, steps: readonly LaneStep[]): Promise<void> {
    for (const step of steps)
      await this.sequelize.query(
        `INSERT OR REPLACE INTO lane_sums (laneId, stepMs, fromMs, ${FIGURES}) VALUES (${places(FIGURE_COLUMNS.length + 3)})`,
        { replacements: [step.laneId, stepMs, step.fromMs, ...figuresOf(step)] },
      );
  }

  /** Whether a stretch of a lane has its sum already. */
  async isSummed(laneId: string, stepMs: number, fromMs: number): Promise<boolean> {
    const found = await this.sequelize.query('SELECT 1 FROM lane_sums WHERE laneId = ? AND stepMs = ? AND fromMs = ?', {
      ...{ replacements: [laneId, stepMs, fromMs], type: QueryTypes.SELECT },
    });
    return found.length > 0;
  }

  /** The begins of the stretches in which a lane has minutes and no sum yet, the oldest first. */
  async unsummed(stepMs: number, untilMs: number, most: number): Promise<{ laneId: string; fromMs: number }[]> {
    // One look for all of them: most have nothing to sum up.
    const lanes = await this.sequelize.query<{ laneId: string; afterMs: number }>(
      `SELECT laneId, afterMs FROM (
         SELECT id AS laneId,
           coalesce((SELECT max(fromMs) FROM lane_sums WHERE laneId = lanes.id AND stepMs = ?) + ?, 0) AS afterMs
         FROM lanes) AS each
       WHERE EXISTS (SELECT 1 FROM lane_minutes WHERE laneId = each.laneId AND fromMs >= each.afterMs AND fromMs < ?)`,
      { replacements: [stepMs, stepMs, untilMs], type: QueryTypes.SELECT },
    );
    const found: { laneId: string; fromMs: number }[] = [];
    for (const { laneId, afterMs } of lanes) {
      if (found.length >= most) break;
      const steps = await this.sequelize.query<{ fromMs: number }>(
        `SELECT DISTINCT fromMs - fromMs % ? AS fromMs FROM lane_minutes WHERE laneId = ? AND fromMs >= ? AND fromMs < ?
         ORDER BY fromMs LIMIT ?`,
        {
          replacements: [stepMs, laneId, afterMs, untilMs, most - found.length],
          type: QueryTypes.SELECT,
        },
      );
      found.push(...steps.map(({ fromMs }) => ({ laneId, fromMs })));
    }
    return found;
  }

  async removeMinutesBefore(atMs: number): Promise<void> {
    await this.sequelize.query('DELETE FROM lane_minutes WHERE fromMs < ?', { replacements: [atMs] });
  }

  /** Outages that touch a stretch of time, the newest first. */
  async outages(siteId: string, fromMs: number, untilMs: number, most = 500): Promise<StoredOutage[]> {
    const rows = await this.sequelize.query<OutageRow>(
      `SELECT * FROM lane_outages WHERE siteId = ? AND fromMs < ? AND (untilMs IS NULL OR untilMs >= ?)
       ORDER BY fromMs DESC LIMIT ?`,
      { replacements: [siteId, untilMs, fromMs, most], type: QueryTypes.SELECT },
    );
    return rows.map(outageOf);
  }

  /** Outages of a machine that touch a stretch are replaced by those that are known now. */
  async replaceOutages(deviceId: string, gone: readonly string[], outages: readonly StoredOutage[]): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      for (const id of gone)
        await this.sequelize.query('DELETE FROM lane_outages WHERE id = ? AND deviceId = ?', {
          ...{ transaction, replacements: [id, deviceId] },
        });
      for (const { id, siteId, fromMs, untilMs, fault, laneIds, air } of outages)
        await this.sequelize.query(
          `INSERT OR REPLACE INTO lane_outages (id, siteId, deviceId, fromMs, untilMs, fault, laneIds, air)
           VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
          {
            transaction,
            replacements: [id, siteId, deviceId, fromMs, untilMs, fault, JSON.stringify(laneIds), air ? 1 : 0],
          },
        );
    });
  }

  async saveMark({ id, siteId, label, byName, fromMs, untilMs }: StoredMark): Promise<void> {
    await this.sequelize.query(
      'INSERT OR REPLACE INTO marks (id, siteId, label, byName, fromMs, untilMs) VALUES (?, ?, ?, ?, ?, ?)',
      { replacements: [id, siteId, label, byName, fromMs, untilMs] },
    );
  }

  async mark(id: string): Promise<StoredMark | null> {
    const [found] = await this.#marks('id = ?', [id]);
    return found ?? null;
  }

  /** Marks that touch a stretch of time, the newest first. */
  marks(siteId: string, fromMs: number, untilMs: number): Promise<StoredMark[]> {
    return this.#marks(
      'siteId = ? AND fromMs < ? AND (untilMs IS NULL OR untilMs >= ?) ORDER BY fromMs DESC LIMIT 200',
      [...[siteId, untilMs, fromMs]],
    );
  }

  async removeMark(id: string): Promise<void> {
    await this.sequelize.query('DELETE FROM marks WHERE id = ?', { replacements: [id] });
  }

  #marks(where: string, values: readonly (string | number)[]): Promise<StoredMark[]> {
    return this.sequelize.query<StoredMark>(`SELECT * FROM marks WHERE ${where}`, {
      ...{ replacements: [...values], type: QueryTypes.SELECT },
    });
  }

  #lanes(where: string, value: string): Promise<StoredLane[]> {
    return this.sequelize.query<StoredLane>(
      `SELECT ${LANE_COLUMNS.join(', ')} FROM lanes WHERE ${where} ORDER BY place, madeAtMs`,
      { replacements: [value], type: QueryTypes.SELECT },
    );
  }
}
