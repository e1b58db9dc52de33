/** What a project asks for before it calls something agreed. */
export interface AgreementRule {
  /** How many people must agree; `all`: everybody who is asked and may. */
  readonly needed: number | 'all';
  /** Whether somebody may agree to what they wrote themselves. */
  readonly authors: boolean;
}

/** Somebody who is asked to agree. */
export interface Asked {
  readonly person: string;
  /** Whether their role lets them agree, as it is now. */
  readonly may: boolean;
}

/** What one of them said of a version. */
export interface Answer {
  readonly person: string;
  readonly version: number;
  readonly agrees: boolean;
}

/** A version that is asked for. */
export interface AskedFor {
  readonly version: number;
  /** Who wrote it, and whatever of it is newer than what was agreed before. */
  readonly authors: readonly string[];
}

/** How far an agreement is. */
export type Standing = 'waiting' | 'agreed' | 'objected';

/** What somebody said last of a version; null: nothing. Answers stand in the order in which they were given. */
export function answerOf<A extends Answer>(answers: readonly A[], person: string, version: number): A | null {
  return answers.findLast((a) => a.person === person && a.version === version) ?? null;
}

/** Those of the asked whose agreement counts. */
export function mayAgree({ authors }: AskedFor, asked: readonly Asked[], rule: AgreementRule): Asked[] {
  return asked.filter((a) => a.may && (rule.authors || !authors.includes(a.person)));
}

/** Whether a version waits for what somebody says: they may agree to it, and have said nothing of it. */
export function waitsFor(of: AskedFor, asked: readonly Asked[], answers: readonly Answer[], rule: AgreementRule, person: string): boolean {
  return answerOf(answers, person, of.version) === null && mayAgree(of, asked, rule).some((a) => a.person === person);
}

/** How many of those who may must agree; null: fewer may than are needed, so that it cannot come about. */
export function neededOf(of: AskedFor, asked: readonly Asked[], rule: AgreementRule): number | null {
  const { length: able } = mayAgree(of, asked, rule);
  const needed = rule.needed === 'all' ? Math.max(1, able) : rule.needed;
  return needed > able ? null : needed;
}

/**
 * How far the agreement to a version is: one objection of anybody who is asked holds it up; otherwise enough of those who
 * may must agree to exactly this version. What was said of another version counts for that one.
 */
export function standingOf(of: AskedFor, asked: readonly Asked[], answers: readonly Answer[], rule: AgreementRule): Standing {
  const said = (person: string): Answer | null => answerOf(answers, person, of.version);
  if (asked.some((a) => said(a.person)?.agrees === false)) return 'objected';
  const needed = neededOf(of, asked, rule);
  const agree = mayAgree(of, asked, rule).filter((a) => said(a.person)?.agrees === true).length;
  return needed !== null && agree >= needed ? 'agreed' : 'waiting';
}

/** From which version on somebody looks at what changed: the last they agreed to themselves, or what was agreed before; null: at all of it. */
export function seenUpTo(of: Pick<AskedFor, 'version'> & { readonly since: number | null }, answers: readonly Answer[], person: string): number | null {
  const own = answers.filter((a) => a.person === person && a.version < of.version && answerOf(answers, person, a.version)?.agrees === true).map((a) => a.version);
  return own.length === 0 && of.since === null ? null : Math.max(...own, of.since ?? 0);
}
