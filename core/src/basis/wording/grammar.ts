import type { Finding } from './rule.ts';

const MODAL = 'shall|must|should|will|has to|have to|needs? to|is to|are to|may|can';
const FINITE = `${MODAL}|is|are|gets?|sees?|receives?|shows?|stays?|stands?|stores?|sends?|keeps?|writes?`;

/** What a second demand begins with after “and”: the bare verb that a modal before still governs. */
const BARE_VERB =
  'store|send|show|notify|log|record|print|create|delete|remove|update|calculate|compute|refuse|reject|accept|display|write|mark|charge|bill|close|open|save|ask|tell|inform|check|verify|validate|keep|lock|unlock|block|return|answer|publish|archive|export|import|replace|restore|reset|register|cancel|confirm|warn|end|start|stop|prevent|allow|require';

const ONE_MODAL = new RegExp(`\\b(?:${MODAL})\\b`, 'iu');

/** What a second demand looks like anywhere in a sentence. */
const NEW_SUBJECT = [
  // “… must A, and the clerk is told”: a new subject with its own finite verb.
  new RegExp(`[,;]\\s+(?:and|but)\\s+(?:[\\p{L}\\d’'-]+\\s+){1,5}?(?:${FINITE})\\b`, 'giu'),
  // “The system must A; it must B”.
  new RegExp(`;\\s+(?:[\\p{L}\\d’'-]+\\s+){1,5}?(?:${FINITE})\\b`, 'giu'),
] as const;

/** What it looks like after a modal of the same clause. */
const SAME_SUBJECT = [
  // “… must store the reading and notify the member”: one modal, two verbs.
  new RegExp(`\\band(?: then| also)?\\s+(?:${BARE_VERB})\\b`, 'giu'),
  // “… must A and must B”.
  /\b(?:and|but)\s+(?:also\s+)?(?:shall|must|should|will|has to|have to)\b/giu,
] as const;

interface Place {
  readonly index: number;
  readonly words: string;
}

/** Second demands behind a modal verb, clause by clause: looking back for the modal at every place would be dear. */
function afterModal(plain: string): Place[] {
  return [...plain.matchAll(/[^.;]+/g)].flatMap(({ 0: clause, index }) => {
    const modal = clause.search(ONE_MODAL);
    if (modal < 0) return [];
    return SAME_SUBJECT.flatMap((pattern) => [...clause.slice(modal).matchAll(pattern)].map((m): Place => ({ index: index + modal + m.index, words: m[0] })));
  });
}

/** A second demand in one sentence: each is to be tested, and a link to the sentence cannot say which. */
export function secondDemands(plain: string): Finding[] {
  const found: Place[] = [...NEW_SUBJECT.flatMap((pattern) => [...plain.matchAll(pattern)].map((m) => ({ index: m.index, words: m[0] }))), ...afterModal(plain)];
  const [first] = found.sort((a, b) => a.index - b.index);
  if (first === undefined || !speaksBefore(plain, first.index)) return [];
  const joiner = /^[,;]?\s*(?:and|but)?/i.exec(first.words)?.[0] ?? '';
  const lead = /^[,;]?\s*/.exec(joiner)?.[0].length ?? 0;
  // A bare semicolon is marked itself.
  const [at, length] = joiner.length === lead ? [first.index, 1] : [first.index + lead, joiner.length - lead];
  return [{ rule: 'severalDemands', at, length }];
}

/** A demand of its own: a finite verb. */
const DEMAND = new RegExp(`\\b(?:${FINITE})\\b|\\b\\p{L}+s\\b\\s+(?:the|a|an|its|their|every|each|no)\\b`, 'iu');

/** Whether a demand was made already: conditions in front (“when A, and B”) are none. */
function speaksBefore(plain: string, at: number): boolean {
  const before = plain.slice(0, at);
  const main = /^(?:when|if|once|as soon as|while|after|before|unless|where|until)\b/i.test(before) ? before.slice(firstComma(before)) : before;
  return DEMAND.test(main);
}

function firstComma(text: string): number {
  const comma = text.indexOf(',');
  return comma < 0 ? text.length : comma;
}

const IRREGULAR =
  'sent|written|shown|told|kept|given|taken|made|done|paid|read|built|drawn|chosen|known|seen|found|held|lost|met|put|set|sold|thrown|understood|brought|bought|cut|left|lent|shut|spent|split|begun|broken|forgotten|hidden|overwritten|withdrawn|frozen|stolen|worn|undone|redone';

/** Participles that say how something is, not what is done to it. */
const STATES =
  'based|called|named|located|limited|related|allowed|permitted|supposed|concerned|involved|interested|signed|connected|used|required|needed|unregistered|registered|expected|supported|composed|comprised|divided|dated|united|retired|married|closed|unlimited|unpaid|unsigned|unread|given';

const PASSIVE = new RegExp(
  `\\b(?:is|are|was|were|be|been|being|gets?|got)\\s+(?:(?:not|never|only|also|then|always|first|still|automatically|again|immediately|always)\\s+){0,2}((?!(?:${STATES})\\b)(?:(?!need|feed|speed|seed|breed|indeed|hundred|sacred|naked|red\\b|bed\\b|shed\\b)\\p{Ll}{2,}ed|${IRREGULAR}))\\b`,
  'giu',
);

/** Something is done, and nobody does it. */
export function passivesWithoutActor(plain: string): Finding[] {
  return [...plain.matchAll(PASSIVE)]
    .filter((match) => !/\bby\s+(?!\d|the \d|(?:more|less|at least|at most)\b)/i.test(clauseAfter(plain, match.index)))
    .map((match) => ({ rule: 'passiveWithoutActor', at: match.index, length: match[0].length }));
}

/** Up to where another clause begins. */
function clauseAfter(plain: string, at: number): string {
  const rest = plain.slice(at);
  const end = rest.search(/;|,\s+(?:and|but|or)\s/i);
  return end < 0 ? rest : rest.slice(0, end);
}
