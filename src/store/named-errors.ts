import type { Sequelize } from 'sequelize';

/** What an error has for a stack when it was made where none is written down. */
const NO_STACK = /^Error:?\s*$/;

/**
 * No stack is written down for statements (see sqlite-dialect.ts), and Sequelize would put that in the place of the error's own, so
 * that whoever prints a stack printed nothing: it begins with what went wrong again. Values are not among it.
 */
export function nameErrors(sequelize: Sequelize): void {
  const ask = sequelize.query.bind(sequelize) as (...asked: unknown[]) => Promise<unknown>;
  const named = (...asked: unknown[]) =>
    ask(...asked).catch((error: unknown) => {
      if (error instanceof Error && NO_STACK.test(error.stack ?? ''))
        error.stack = `${error.name}: ${whatFailed(error)}`;
      throw error;
    });
  sequelize.query = named as Sequelize['query'];
}

/** SQLite's own words where there are some: of a broken constraint Sequelize tells only that it is one. */
function whatFailed(error: Error): string {
  const { parent } = error as { parent?: unknown };
  return parent instanceof Error ? parent.message : error.message;
}
