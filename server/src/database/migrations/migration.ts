/** A step forward of the schema. Forward only: a mistake is mended by the next one. */
export interface Migration {
  readonly name: string;
  readonly sql: string;
}
