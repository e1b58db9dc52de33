import type { Finding, WordingRule } from './rule.ts';

/** Expressions that are weak wherever they stand. `not` names what makes one fine after all, tried on the sentence at its place. */
interface Entry {
  readonly rule: WordingRule;
  readonly pattern: RegExp;
  /** Tried on what stands before, ending there. */
  readonly notAfter?: RegExp;
  /** Tried on what stands after, beginning there. */
  readonly notBefore?: RegExp;
}

function words(list: string): RegExp {
  return new RegExp(`(?<![\\p{L}\\d-])(?:${list})(?![\\p{L}\\d]|-[\\p{L}\\d])`, 'giu');
}

const DETERMINER = /^\s+(?:the|a|an|all|its|their|this|that|these|those|every|each|any)\b/i;

const ENTRIES: readonly Entry[] = [
  {
    rule: 'vagueAmount',
    pattern: words(
      'some|several|various|numerous|a few|few|a lot of|lots of|a number of|a couple of|a certain amount of|usually|normally|generally|typically|frequently|sometimes|occasionally|rarely|seldom|regularly|periodically|quickly|slowly|rapidly|promptly|shortly|nearly|almost|roughly|approximately|adequately?|sufficient(?:ly)?|insufficient(?:ly)?|reasonabl[ey]|appropriate(?:ly)?|as soon as possible|as far as possible|as much as possible|where possible|if possible|when possible|if necessary|where necessary|when necessary|as necessary|as needed|if needed|when needed|if required|in a timely manner|from time to time|to some extent|to a large extent|large|huge|long enough|enough|excessive(?:ly)?|significant(?:ly)?|considerabl[ey]|substantial(?:ly)?|minimal|recently',
    ),
    notAfter: /\b(?:at|how)\s+$/i,
  },
  { rule: 'vagueAmount', pattern: words('many'), notAfter: /\b(?:as|how|too)\s+$/i },
  { rule: 'vagueAmount', pattern: words('often'), notAfter: /\b(?:as|how)\s+$/i },
  { rule: 'vagueAmount', pattern: words('most'), notAfter: /\b(?:at|at the|the)\s+$/i },
  { rule: 'vagueAmount', pattern: words('soon'), notAfter: /\bas\s+$/i, notBefore: /^\s+as\b/i },
  { rule: 'vagueAmount', pattern: /\b(?:about|around|circa|ca\.)(?=\s+\d)/gi },
  {
    rule: 'unverifiable',
    pattern: words(
      'user[- ]friendly|easy|easily|simple|simply|intuitive(?:ly)?|fast|quick|slow|efficient(?:ly)?|effective(?:ly)?|flexible|flexibly|robust|reliabl[ey]|modern|nice(?:ly)?|good|bad|better|acceptable|comfortabl[ey]|convenient(?:ly)?|readable|legible|seamless(?:ly)?|smooth(?:ly)?|state[- ]of[- ]the[- ]art|stable|optimal(?:ly)?|scalable|maintainable|powerful|attractive|beautiful|friendly|helpful|meaningful|suitabl[ey]|proper(?:ly)?|correctly|well[- ]designed|high[- ]quality|high performance|responsive|transparent(?:ly)?|understandable|self[- ]explanatory|up[- ]to[- ]date|secure(?:ly)?|safely|gracefully',
    ),
    notBefore: DETERMINER,
  },
  { rule: 'unverifiable', pattern: words('best'), notAfter: /\bat\s+$/i, notBefore: /^\s+before\b/i },
  { rule: 'unverifiable', pattern: words('clear(?:ly)?'), notBefore: DETERMINER },
  {
    rule: 'openList',
    pattern: /\betc(?:\.|\b)|\band so (?:on|forth)\b|\bsuch as\b|\bfor (?:example|instance)\b|\be\.g\.|\b(?:including |but )*not limited to\b|\bamong others\b|\band the like\b|\band others\b|\bor (?:similar|the like|something similar)\b|…(?=\s*(?:[.,;)]|$))|\.\.\.(?!\.)/gi,
  },
  {
    rule: 'hiddenAlternative',
    pattern: /\band\s*\/\s*or\b|\bor\s*\/\s*and\b|\bif applicable\b|\boptionally\b|\bmay or may not\b|\bas the case may be\b|\bpossibly\b|\balternatively\b|\p{L}\(s\)|\bor vice versa\b/giu,
  },
  { rule: 'hiddenAlternative', pattern: /(?<![\p{L}\d/.-])\p{Ll}{3,}\/\p{Ll}{3,}(?![\p{L}\d/])/gu, notAfter: /\d\s*$/ },
  {
    rule: 'placeholder',
    pattern: /\b(?:TBD|TBC|TBA|TODO|FIXME|XXX+)\b|\?\?+|\bto be (?:defined|decided|confirmed|determined|specified|agreed|clarified|completed|discussed)\b|\blorem ipsum\b|\bnot yet (?:known|defined|decided)\b|<(?:insert|fill in|name of)[^>\n]*>|\bN\.N\.|(?<![\p{L}\d])(?:nn|xx)(?![\p{L}\d])/gu,
  },
];

/** Words of the lists that stand in a sentence, longest first where they overlap. */
export function listedWords(plain: string): Finding[] {
  return ENTRIES.flatMap(({ rule, pattern, notAfter, notBefore }) =>
    [...plain.matchAll(pattern)]
      .filter(({ 0: words, index }) => !(notAfter?.test(plain.slice(0, index)) ?? false) && !(notBefore?.test(plain.slice(index + words.length)) ?? false))
      .map(({ 0: words, index }) => ({ rule, at: index, length: words.length })),
  );
}
