/** One step of the schema. Statements run in order, in one transaction; a step that has landed is never edited. */
export interface Migration {
  readonly name: string;
  readonly statements: readonly string[];
}
