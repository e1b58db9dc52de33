/** What was seen when the analyst tried the real thing, beside what is documented. */
export interface Observation {
  readonly id: string;
  /** What the document says. */
  readonly documented: string;
  /** What was done. */
  readonly done: string;
  /** What came back. */
  readonly seen: string;
  readonly by: string;
  /** ISO date and time. */
  readonly at: string;
}
