import { JSON_SCHEMA, YAMLException, load } from 'js-yaml';
import { asJson, type Json } from '../versions/index.ts';

/** Levels of lists and records. */
const DEEPEST = 60;

/**
 * A record as YAML 1.2 in blocks: a line a fact, names in the order in which they stand, texts of several lines as they
 * are. The same record is always the same text. Written by itself, as it takes a twentieth of the time of a writer that
 * weighs styles; the library's reader judges it in tests.
 */
export function blockText(record: object): string {
  return `${blockOf(asJson(record), '').slice(1)}\n`;
}

/** Reads what {@link blockText} wrote, or a hand that changed it; undefined when it is no YAML of plain values. Nothing in it is followed or expanded. */
export function readBlockText(text: string): Json | undefined {
  try {
    return load(text, { schema: JSON_SCHEMA, maxAliases: 0, maxDepth: DEEPEST }) as Json;
  } catch (error) {
    if (error instanceof YAMLException) return undefined;
    throw error;
  }
}

/** What stands behind a name or a dash: a scalar on the same line, or lines below. */
function blockOf(value: Json, indent: string): string {
  if (typeof value === 'string') return ` ${textOf(value, indent)}`;
  if (value === null || typeof value !== 'object') return ` ${JSON.stringify(value)}`;
  if (Array.isArray(value)) return value.length === 0 ? ' []' : value.map((item) => `\n${indent}-${itemOf(item, `${indent}  `)}`).join('');
  const fields = Object.entries(value).filter(([, field]) => field !== undefined);
  return fields.length === 0 ? ' {}' : fields.map(([name, field]) => `\n${indent}${nameOf(name)}:${blockOf(field, `${indent}  `)}`).join('');
}

/** A record or a list begins behind its dash. */
function itemOf(item: Json, indent: string): string {
  const block = blockOf(item, indent);
  return block.startsWith('\n') ? ` ${block.slice(1 + indent.length)}` : block;
}

const PLAIN_NAME = /^[A-Za-z_][\w-]*$/;
/** Begins and ends with a letter or digit and holds nothing that YAML gives a meaning to. */
const PLAIN_TEXT = /^\p{L}(?:[\p{L}\p{N} _.,/()’–-]*[\p{L}\p{N}.)’])?$/u;
const WORDS_OF_YAML = /^(?:null|true|false|yes|no|on|off|y|n)$/i;

function nameOf(name: string): string {
  return PLAIN_NAME.test(name) && !WORDS_OF_YAML.test(name) ? name : quoted(name);
}

function textOf(text: string, indent: string): string {
  if (text.includes('\n') && isPrintable(text)) return linesOf(text, indent);
  return PLAIN_TEXT.test(text) && !WORDS_OF_YAML.test(text) ? text : quoted(text);
}

/** Whether each character stands for itself in YAML, and readers agree on what ends a line (YAML 1.2, 5.1 and 5.4). */
function isPrintable(text: string): boolean {
  return !/[^\n\t\u0020-\u007e\u00a0-\u2027\u202a-\ud7ff\ue000-\ufefe\uff00-\ufffd\u{10000}-\u{10ffff}]/u.test(text);
}

/** JSON's strings are YAML's; what is not printable is written by its number. */
function quoted(text: string): string {
  return JSON.stringify(text).replaceAll(/[\u007f-\u009f\u2028\u2029\ufeff\ufffe\uffff]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`);
}

/** A literal block: `-` and `+` say how many line ends stand at its end, a number how far it is set in where its first line does not show it. */
function linesOf(text: string, indent: string): string {
  const lines = text.split('\n');
  const trailing = lines.length - 1 - lines.findLastIndex((line) => line !== '');
  const isEmpty = trailing === lines.length;
  if (isEmpty) return quoted(text);
  const end = trailing === 0 ? '-' : trailing === 1 ? '' : '+';
  const body = (trailing === 0 ? lines : lines.slice(0, -1)).map((line) => (line === '' ? '' : `${indent}${line}`));
  return `|${/^[ \n\t]/.test(text) ? '2' : ''}${end}\n${body.join('\n')}`;
}
