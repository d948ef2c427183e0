import { Op, type Attributes } from 'sequelize';
import type { ApiTokenRow, SignInRow } from '../models/rows';
import type { Tables } from '../models/tables';

export type StoredSignIn = Attributes<SignInRow>;
export type StoredApiToken = Attributes<ApiTokenRow>;

const TECHNICIAN = 'technician';

/** Who may sign in, and who is. */
export class AccessQueries {
  constructor(private readonly tables: Tables) {}

  async passphraseHash(): Promise<string | null> {
    return (await this.tables.passphrases.findByPk(TECHNICIAN))?.hash ?? null;
  }

  /** Sets the first passphrase; false when there is one already. */
  async setFirstPassphrase(hash: string, setAtMs: number): Promise<boolean> {
    const [, made] = await this.tables.passphrases.findOrCreate({
      where: { id: TECHNICIAN },
      defaults: { id: TECHNICIAN, hash, setAtMs },
    });
    return made;
  }

  async signIn(id: string): Promise<StoredSignIn | null> {
    return (await this.tables.signIns.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async saveSignIn(signIn: StoredSignIn): Promise<void> {
    await this.tables.signIns.upsert(signIn);
  }

  async removeSignIn(id: string): Promise<void> {
    await this.tables.signIns.destroy({ where: { id } });
  }

  async apiTokens(): Promise<StoredApiToken[]> {
    return (await this.tables.apiTokens.findAll({ order: ['name'] })).map((row) => row.get({ plain: true }));
  }

  async apiToken(id: string): Promise<StoredApiToken | null> {
    return (await this.tables.apiTokens.findByPk(id))?.get({ plain: true }) ?? null;
  }

  async saveApiToken(token: StoredApiToken): Promise<void> {
    await this.tables.apiTokens.upsert(token);
  }

  async removeApiToken(id: string): Promise<void> {
    await this.tables.apiTokens.destroy({ where: { id } });
  }

  /** Sign-ins that were made or last used too long ago. */
  async removeSignInsBefore(createdMs: number, seenMs: number): Promise<void> {
    await this.tables.signIns.destroy({
      where: { [Op.or]: [{ createdAtMs: { [Op.lt]: createdMs } }, { seenAtMs: { [Op.lt]: seenMs } }] },
    });
  }
}
