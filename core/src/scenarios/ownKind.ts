/** Names an own kind for good, whatever it comes to be called. */
export type OwnKindId = string & { readonly __brand: 'OwnKindId' };

/** The one maker of ids of own kinds out of texts that hold one. */
export function ownKindId(text: string): OwnKindId {
  return text as OwnKindId;
}

/** A kind of values that a project has made for itself: a parameter type, as cucumber expressions call it. */
export interface OwnValueKind {
  readonly id: OwnKindId;
  /** Stands between braces in a phrase: `{season}`. */
  readonly name: string;
  /** What its values look like: words with bars between them, or a regular expression in the syntax of RE2. */
  readonly pattern: string;
}

const BUILT_IN: ReadonlySet<string> = new Set(['string', 'int', 'float', 'word']);

/** Whether a name can stand between the braces of a phrase, and means nothing else there. */
export function isOwnKindName(name: string): boolean {
  return /^\p{L}[\p{L}\p{N}_-]*$/u.test(name) && !BUILT_IN.has(name.toLowerCase());
}
