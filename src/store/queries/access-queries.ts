import { Op, type Attributes } from 'sequelize';
import type { ApiTokenRow, SignInRow, TechnicianRow } from '../models/rows';
import type { Tables } from '../models/tables';

export type StoredTechnician = Attributes<TechnicianRow>;
export type StoredSignIn = Attributes<SignInRow>;
export type StoredApiToken = Attributes<ApiTokenRow>;

/** Who may sign in, who is, and which scripts may. */
export class AccessQueries {
  constructor(private readonly tables: Tables) {}

  async technicians(): Promise<StoredTechnician[]> {
    return (await this.tables.technicians.findAll({ order: ['addedAtMs'] })).map((row) => row.get({ plain: true }));
  }

  async technician(id: string): Promise<StoredTechnician | null> {
    return (await this.tables.technicians.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async technicianNamed(nameKey: string): Promise<StoredTechnician | null> {
    return (await this.tables.technicians.findOne({ where: { nameKey } }))?.get({ plain: true }) ?? null;
  }

  async saveTechnician(technician: StoredTechnician): Promise<void> {
    await this.tables.technicians.upsert(technician);
  }

  /** With all that he is signed in with. */
  async removeTechnician(id: string): Promise<void> {
    await this.tables.signIns.destroy({ where: { technicianId: id } });
    await this.tables.technicians.destroy({ where: { id } });
  }

  async signIn(id: string): Promise<StoredSignIn | null> {
    return (await this.tables.signIns.findByPk(id))?.get({ plain: true }) ?? null;
  }

  /** The one last used first. */
  async signIns(): Promise<StoredSignIn[]> {
    return (await this.tables.signIns.findAll({ order: [['seenAtMs', 'DESC']] })).map((row) =>
      row.get({ plain: true }),
    );
  }

  async addSignIn(signIn: StoredSignIn): Promise<void> {
    await this.tables.signIns.create(signIn);
  }

  /** Does nothing to one that has ended meanwhile. */
  async noteSignInSeen(id: string, seenAtMs: number): Promise<void> {
    await this.tables.signIns.update({ seenAtMs }, { where: { id } });
  }

  async removeSignIns(ids: readonly string[]): Promise<void> {
    await this.tables.signIns.destroy({ where: { id: { [Op.in]: [...ids] } } });
  }

  /** Sign-ins that were made or last used too long ago. */
  async removeSignInsBefore(createdMs: number, seenMs: number): Promise<void> {
    await this.tables.signIns.destroy({
      where: { [Op.or]: [{ createdAtMs: { [Op.lt]: createdMs } }, { seenAtMs: { [Op.lt]: seenMs } }] },
    });
  }

  async apiTokens(): Promise<StoredApiToken[]> {
    return (await this.tables.apiTokens.findAll({ order: ['name'] })).map((row) => row.get({ plain: true }));
  }

  async apiToken(id: string): Promise<StoredApiToken | null> {
    return (await this.tables.apiTokens.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async addApiToken(token: StoredApiToken): Promise<void> {
    await this.tables.apiTokens.create(token);
  }

  /** Does nothing to one that was revoked meanwhile. */
  async noteApiTokenUsed(id: string, usedAtMs: number): Promise<void> {
    await this.tables.apiTokens.update({ usedAtMs }, { where: { id } });
  }

  async removeApiToken(id: string): Promise<void> {
    await this.tables.apiTokens.destroy({ where: { id } });
  }
}
