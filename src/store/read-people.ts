import { QueryTypes } from 'sequelize';
import { openRaw } from './raw-sqlite';
import type { StoredTechnician } from './queries/access-queries';

/** Who may sign in, as far as it matters to whoever makes a link at the machine. */
export type KnownPerson = Pick<StoredTechnician, 'id' | 'name' | 'setAtMs'>;

/** Reads who may sign in from a database that a console may have open; changes nothing. */
export async function readPeople(file: string): Promise<KnownPerson[]> {
  const raw = openRaw(file);
  try {
    return await raw.query<KnownPerson>('SELECT id, name, setAtMs FROM technicians ORDER BY addedAtMs', {
      type: QueryTypes.SELECT,
    });
  } finally {
    await raw.close();
  }
}
