import type { ConditionId, RequirementId } from '../artefacts/index.ts';
import { CASE_KINDS, EXECUTIONS, type CaseContent, type CaseKind, type Execution } from '../cases/index.ts';
import { ownText, writeOwn, withOwnValue, type OwnField } from '../fields/index.ts';
import { fileStepOf, stepsText } from './stepText.ts';

/** The fields of a case that files carry and that are compared, each as a text. Steps are one: who changed any of them changed them. */
export const CASE_FIELDS = ['title', 'objective', 'preconditions', 'module', 'priority', 'owner', 'tags', 'minutes', 'kind', 'execution', 'steps', 'conditions'] as const;
export type PlainCaseField = (typeof CASE_FIELDS)[number];
export type CaseField = PlainCaseField | 'requirements' | `own:${string}`;
/** A field that holds one text of its own. */
export type TextField = Exclude<CaseField, 'steps' | 'conditions' | 'requirements'>;

const EXECUTION_WORDS: Record<Execution, readonly string[]> = { byHand: ['by hand', 'manual', 'no', 'hand', 'not automated', 'n', 'manuell', 'nein', 'manuel', 'manuelle', 'non', 'não', 'manuellt', 'nej'], automated: ['automated', 'automatic', 'auto', 'yes', 'y', 'automatisiert', 'automatisch', 'ja', 'automatisé', 'automatisée', 'oui', 'automatizado', 'automatizada', 'sí', 'sim', 'automatiserad', 'automatiserat'] };
const KIND_WORDS: Record<CaseKind, readonly string[]> = { procedure: ['procedure', 'test case', 'scripted', 'steps'], charter: ['charter', 'exploratory', 'exploration', 'session'] };

export function readExecution(text: string): Execution | null {
  return EXECUTIONS.find((execution) => EXECUTION_WORDS[execution].includes(text.trim().toLowerCase())) ?? null;
}

export function readKind(text: string): CaseKind | null {
  return CASE_KINDS.find((kind) => KIND_WORDS[kind].includes(text.trim().toLowerCase())) ?? null;
}

/** Minutes as a number; of other writings `1:30` is hours and minutes, `2 h` hours. */
export function readMinutes(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  const clock = /^(\d{1,3}):([0-5]\d)(?::[0-5]\d)?$/.exec(plain);
  if (clock !== null) return Number(clock[1]) * 60 + Number(clock[2]);
  const [, number, unit] = /^(\d{1,6}(?:\.\d{1,3})?)\s*(m|min|mins|minutes?|h|hours?)?\.?$/i.exec(plain) ?? [];
  const value = number === undefined ? null : Number(number) * (/^h/i.test(unit ?? '') ? 60 : 1);
  return value === null || value > 100_000 ? null : value;
}

/** Tags parted by commas, semicolons or lines, each once; one that holds such a sign stands in quotes. */
export function readTags(text: string): string[] {
  const parts = [...text.matchAll(/\s*"((?:[^"]|"")*)"\s*(?=[,;\n]|$)|[^,;\n]+/g)].map(([whole, quoted]) => (quoted?.replaceAll('""', '"') ?? whole).trim());
  return [...new Set(parts.filter((tag) => tag !== ''))];
}

function writtenTags(tags: readonly string[]): string {
  return tags.map((tag) => (/[,;\n"]/.test(tag) ? `"${tag.replaceAll('"', '""')}"` : tag)).join(', ');
}

/** A field as files write it. */
export function caseFieldText(content: CaseContent, field: CaseField, fields: readonly OwnField[]): string {
  switch (field) {
    case 'title':
    case 'objective':
    case 'preconditions':
    case 'module':
    case 'priority':
    case 'owner':
    case 'kind':
      return content[field];
    case 'execution':
      return EXECUTION_WORDS[content.execution][0] ?? '';
    case 'tags':
      return writtenTags(content.tags);
    case 'minutes':
      return content.estimate === null ? '' : String(content.estimate);
    case 'steps':
      return stepsText(content.steps.map(fileStepOf));
    case 'conditions':
      return conditionsText(content.covers.map((c) => c.id));
    case 'requirements':
      return '';
    default: {
      const own = fields.find((f) => `own:${f.id}` === field);
      const value = own === undefined ? undefined : content.own[own.id];
      return own === undefined || value === undefined ? '' : ownText(own, value);
    }
  }
}

export function conditionsText(ids: readonly (ConditionId | RequirementId)[]): string {
  return [...new Set(ids)].sort((a, b) => Number(a.slice(2)) - Number(b.slice(2))).join(', ');
}

/** The content with a text in a field; what was read before fits. */
export function withCaseField(content: CaseContent, field: TextField, text: string, fields: readonly OwnField[]): CaseContent {
  switch (field) {
    case 'title':
    case 'objective':
    case 'preconditions':
    case 'module':
    case 'owner':
      return { ...content, [field]: text };
    case 'priority':
      return { ...content, priority: text === '' ? content.priority : text };
    case 'kind':
      return { ...content, kind: readKind(text) ?? content.kind };
    case 'execution':
      return { ...content, execution: readExecution(text) ?? content.execution };
    case 'tags':
      return { ...content, tags: readTags(text) };
    case 'minutes':
      return { ...content, estimate: text.trim() === '' ? null : readMinutes(text) };
    default: {
      const own = fields.find((f) => `own:${f.id}` === field);
      return own === undefined ? content : { ...content, own: withOwnValue(content.own, own.id, writeOwn(own, text)) };
    }
  }
}
