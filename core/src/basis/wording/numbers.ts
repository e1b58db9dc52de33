import { CURRENCY_CODES } from './currencies.ts';
import type { Finding } from './rule.ts';

const NUMBER = String.raw`\d+(?:[  ,]\d{3})*(?:\.\d+)?`;
const RANGE_JOIN = String.raw`\s*(?:–|—|-|…|\.\.|to|and(?: at most| no more than| not more than)?|or|through)\s*`;

/** A number, or a whole range of them, that is not part of a word, a date, a time or a name. */
const AMOUNT = new RegExp(String.raw`(?<![\p{L}\d_.:/#§-])(?<!\d[  ,])${NUMBER}(?:${RANGE_JOIN}${NUMBER})?(?![\d_:/]|-\d|\.\d|[  ,]\d{3})`, 'gu');

/** A word right after a number that is no unit. */
const NO_UNIT =
  /^(?:and|or|to|is|are|was|were|when|if|for|in|of|at|by|but|on|as|with|from|must|shall|should|will|may|can|then|than|that|which|unless|until|before|after|inclusive|exclusive|exactly|only|again|each|has|have|does|do|not|the|a|an|it|they|while|where|because|so|also)\b/iu;

/** What a number after it names rather than measures. */
const LABEL =
  /(?:\b(?:(?:section|chapter|clause|paragraph|article|number|annex|schedule)s?|arts?\.|sec\.|paras?\.|nos\.|version|release|table|figure|fig\.|step|level|stage|phase|page|line|row|column|item|number|no\.|code|codes|status|http|error|answers?|port|form|rule|tariff order|part|appendix|annex|option|class|type|category|year|since|iso|ieee|rfc|room|box|iec|factor|times|ratio|score|grade|rank|place|number of|rule|handbook|order|from scratch|day|month|week|quarter|priority|minus|plus|equals)|[=<>≤≥≠+×*/-]|§)\s*$/iu;

/** Words that say what is counted, standing before the number: “a whole number of cubic metres from 0 to 9”. */
const MEASURED =
  /\b(?:number of|percentage|percent|amount in|length in|count of|quantity of|hours|minutes|seconds|days|weeks|months|years|metres|meters|characters|digits|letters|euros?|cents?|members|persons|people|kilograms?|litres?|degrees|bytes|times|attempts|dials?|age|year|a whole number of)\b/iu;

const CURRENCY_BEFORE = new RegExp(String.raw`(?:[€$£¥]|\b(?:${CURRENCY_CODES}))\s*$`, 'u');

/** A name in capitals before a number has it as its version or kind: TLS 1.3. */
const NAMED = /(?<![\p{L}\d])\p{Lu}{2,}\s+$/u;

/** Things told apart by number: “the states 1, 2 and 3”, “Streets 4, 7 and 9”, “numbers 100 to 199”. */
const NUMBERED = /(?:^\s*\p{Lu}[\p{L}]{2,}s|\b(?:the|these|those|both|all|of|in|for|under|see)\s+[\p{L}]{3,}s)\s+\d{1,4}(?:\s*,\s*\d{1,4})*\s*,?\s*(?:and|or|to|–)\s*\d{1,4}(?!\s*[\d.%°€$£²³])/giu;

/** A noun right before a number is named by it: “Counter 3”, “the record 17”, “of basin 2”. */
const NOUN = /(?:(?:^|[.!?:;,(]\s+)(?!(?:enter|pay|set|add|use|type|choose|select|allow|keep|wait|show|return|subtract|multiply)\b)|\b(?:the|a|an|each|every|this|that|its|their|of|in|for|with|from|by|on|per|under|as|no)\s+)(?!(?:exactly|about|around|roughly|nearly|almost|only|least|most|over|under|below|above|more|less|than|is|are|was|were|be|up|to|maximum|minimum|limit|total|sum|value|amount|average|mean|fee|price|deposit|surcharge|penalty)\b)\p{L}{3,}(?<!ly|ing|ed)\s+$/iu;

/** A part of what was named before it: “one bill in 1,000”, “of 12 councillors 7”. */
const SHARE = /\b(?:(?:one|two|three|\d+)(?:\s+\p{L}+){0,2}\s+(?:in|out of)|of\s+\d+\s+\p{L}+)\s+$/iu;

/** Amounts that do not say of what. Tables are left out: there the heading has the unit. */
export function numbersWithoutUnit(plain: string): Finding[] {
  const numbered = [...plain.matchAll(NUMBERED)].map((m) => ({ from: m.index, to: m.index + m[0].length }));
  return [...plain.matchAll(AMOUNT)].filter((match) => !numbered.some((n) => match.index >= n.from && match.index < n.to) && isBare(plain, match.index, match[0])).map((match) => ({ rule: 'numberWithoutUnit', at: match.index, length: match[0].length }));
}

function isBare(plain: string, at: number, amount: string): boolean {
  const before = plain.slice(0, at);
  const after = plain.slice(at + amount.length);
  // With a nought before it, it is a sign of something and no amount.
  if (/^0\d/.test(amount) || NOUN.test(before)) return false;
  if (LABEL.test(before) || NAMED.test(before) || CURRENCY_BEFORE.test(before) || MEASURED.test(before) || SHARE.test(before)) return false;
  if (/^\s*[%‰°€$£¥²³]/u.test(after) || /^(?:st|nd|rd|th)\b/i.test(after)) return false;
  // “10 or more m³”, “5 and fewer”: the unit comes after.
  const rest = after.replace(/^\s+(?:or|and) (?:more|less|fewer|above|below|higher|lower|over)\b/i, '');
  const word = /^[ \u00A0-](?=[\p{L}▪])([\p{L}▪][\p{L}³²/▪]*)/u.exec(rest)?.[1];
  return word === undefined || NO_UNIT.test(word);
}
