import type { Sequelize } from 'sequelize';

/**
 * Lets transactions of this process begin one after the other. SQLite lets one write at a time anyway; whoever waits for
 * that inside SQLite holds one of Node's few threads, and when all of them wait, the one that writes gets none to end with:
 * everybody waits until SQLite gives up. A transaction inside another would wait for itself: there are none.
 */
export function oneWriter(sequelize: Sequelize): void {
  const begin = sequelize.transaction.bind(sequelize) as (work: unknown) => Promise<unknown>;
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = (work: unknown) => {
    const turn = last.then(() => begin(work));
    last = turn.catch(() => undefined);
    return turn;
  };
  sequelize.transaction = inTurn as Sequelize['transaction'];
}
