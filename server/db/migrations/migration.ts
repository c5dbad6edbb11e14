/** A step of the schema: statements run in order, in one transaction with the note that they ran. */
export interface Migration {
  name: string;
  statements: readonly string[];
}
