import { parseArtefactId, type Priority, type RequirementId } from '../artefacts/index.ts';
import { DEEPEST_OUTLINE, sectionId } from '../basis/index.ts';
import { ownFieldsOf, writeOwn, type OwnField } from '../fields/index.ts';
import { attributeField, ownFieldName, ownFieldNamed, type FieldName } from './field.ts';
import type { Mapping, Target } from './mapping.ts';
import { at, error, warning, type FileFault, type FileProblem, type RelationFault } from './problem.ts';
import type { SourceDocument, SourceRecord } from './sourceDocument.ts';
import { readPriority, readRisk, readType } from './vocabulary.ts';

/** One requirement as a file brings it. */
export interface Entry {
  readonly line: number;
  /** The id the source gives it; what stands in for one where there is none. */
  readonly key: string;
  /** Set when the file names a requirement of this project itself. */
  readonly ownId: RequirementId | null;
  /** The version the file was written from; null: it does not say. */
  readonly version: number | null;
  /** Key of the one above; undefined: the file says nothing of the outline. */
  readonly parent: string | null | undefined;
  readonly fields: Readonly<Partial<Record<FieldName, string>>>;
  readonly relations: SourceRecord['relations'];
  readonly facts: string;
}

/** Most characters a field may have. */
export interface FieldLimits {
  readonly title: number;
  readonly name: number;
  readonly text: number;
  /** Most relations a requirement may have. */
  readonly relations: number;
}

export interface Entries {
  readonly entries: readonly Entry[];
  readonly problems: readonly FileProblem[];
}

/** The requirements of a document under a mapping, in its order, with every problem by its place. */
export function entriesOf(document: SourceDocument, mapping: Mapping, limits: FieldLimits, fields: readonly OwnField[], priorities: readonly Priority[]): Entries {
  const problems: FileProblem[] = [...document.problems];
  if (document.problems.some((p) => p.severity === 'error' && p.line === null)) return { entries: [], problems };
  const reader = new RecordReader(document, mapping, limits, fields, priorities, problems);
  const read = inSections(document, mapping, reader);
  return { entries: inOutline(withLevels(document, mapping, withoutDoubles(read, problems)), problems), problems };
}

/** The records with what sections say of them: a heading above, or a module. */
function inSections(document: SourceDocument, mapping: Mapping, reader: RecordReader): Entry[] {
  const how = mapping.sections ?? 'heading';
  const turns = new Map<string, number>();
  let heading: Entry | null = null;
  let module: string | null = null;
  const entries: Entry[] = [];
  for (const record of document.records) {
    if (record.section !== undefined && how !== 'rows') {
      module = record.section;
      if (how === 'module') continue;
      const turn = (turns.get(record.section) ?? 0) + 1;
      turns.set(record.section, turn);
      heading = { line: record.line, key: sectionId(record.section, turn).slice(0, 300).toWellFormed(), ownId: null, version: null, parent: null, fields: { title: record.section, type: 'heading' }, relations: [], facts: '' };
      entries.push(heading);
      continue;
    }
    const entry = reader.read(record);
    if (entry === null) continue;
    if (how === 'module' && module !== null && (entry.fields.module ?? '') === '') entries.push({ ...entry, fields: { ...entry.fields, module } });
    else entries.push(how === 'heading' && heading !== null && entry.parent == null ? { ...entry, parent: heading.key } : entry);
  }
  return entries;
}

class RecordReader {
  readonly #columns: ReadonlyMap<Target, readonly { readonly name: string; readonly index: number }[]>;
  readonly #document: SourceDocument;
  readonly #limits: FieldLimits;
  readonly #own: readonly OwnField[];
  readonly #priorities: readonly Priority[];
  readonly #problems: FileProblem[];
  #errors = 0;

  constructor(document: SourceDocument, mapping: Mapping, limits: FieldLimits, own: readonly OwnField[], priorities: readonly Priority[], problems: FileProblem[]) {
    this.#priorities = priorities;
    const columns = new Map<Target, { name: string; index: number }[]>();
    document.columns.forEach((name, index) => {
      const target = mapping.columns[name] ?? 'leave';
      columns.set(target, [...(columns.get(target) ?? []), { name, index }]);
    });
    this.#columns = columns;
    this.#document = document;
    this.#limits = limits;
    this.#own = own;
    this.#problems = problems;
    const hasIds = columns.has('id') || columns.has('ownId') || document.records.some((r) => r.place !== null);
    if (!hasIds && document.records.length > 0) problems.push(warning({ code: 'id_missing' }));
  }

  /** Null when the record cannot be taken in. */
  read(record: SourceRecord): Entry | null {
    const before = this.#errors;
    const own = this.#cell(record, 'ownId').trim();
    const parsed = parseArtefactId(own);
    const ownId = parsed?.kind === 'requirement' ? (own as RequirementId) : null;
    const fields = this.#fields(record);
    const key = record.place?.id ?? (this.#columns.has('id') ? this.#cell(record, 'id').trim() : '') ?? '';
    const named = key !== '' ? key : (ownId ?? (this.#columns.has('id') || this.#columns.has('ownId') ? '' : (fields.title ?? '')));
    // A row of our own export without an id was added there by hand: its title stands in.
    const usable = named === '' && this.#columns.has('ownId') ? (fields.title ?? '') : named;
    if (usable === '') this.#refuse({ code: 'id_missing' }, record.line, this.#columns.get('id')?.[0]?.name ?? null);
    if (this.#errors > before) return null;
    const version = Number(this.#cell(record, 'version'));
    const parent = record.place !== null ? record.place.parent : this.#columns.has('parent') ? this.#cell(record, 'parent').trim() || null : undefined;
    return { line: record.line, key: usable.slice(0, 300).toWellFormed(), ownId, version: Number.isInteger(version) && version > 0 ? version : null, parent, fields, relations: this.#relations(record), facts: this.#cell(record, 'facts') };
  }

  /** Relations are told apart by their ids: one that cannot be, or is too much, is named and left out. */
  #relations(record: SourceRecord): Entry['relations'] {
    const met = new Set<string>();
    return record.relations.filter(({ id, kind }) => {
      const why = relationFault(id, kind, met, this.#limits);
      if (why === null) met.add(id);
      else this.#problems.push(warning({ code: 'relation_left_out', id: id.slice(0, 100), why }, at(record.line)));
      return why === null;
    });
  }

  #refuse(fault: FileFault, line: number, column: string | null): void {
    this.#errors += 1;
    this.#problems.push(error(fault, at(line, column)));
  }

  #cell(record: SourceRecord, target: Target): string {
    const columns = this.#columns.get(target) ?? [];
    return columns.map(({ index }) => record.cells[index] ?? '').find((cell) => cell.trim() !== '') ?? '';
  }

  /** Whether this kind of record has a column for it at all. */
  #speaksOf(record: SourceRecord, target: Target): boolean {
    return (this.#columns.get(target) ?? []).some(({ index }) => record.cells[index] !== null);
  }

  #fields(record: SourceRecord): Partial<Record<FieldName, string>> {
    const fields: Partial<Record<FieldName, string>> = {};
    for (const field of ['text', 'module', 'source', 'link'] as const) if (this.#speaksOf(record, field)) fields[field] = this.#text(record, field);
    this.#title(record, fields);
    this.#closed(record, fields, 'type', (text) => readType(text) !== null);
    this.#closed(record, fields, 'risk', (text) => readRisk(text) !== null);
    this.#closed(record, fields, 'priority', (text) => readPriority(text, this.#priorities) !== null);
    if (fields.priority !== undefined) fields.priority = readPriority(fields.priority, this.#priorities) ?? fields.priority;
    for (const field of ['likelihood', 'impact'] as const) this.#closed(record, fields, field, (text) => /^[1-6]$/.test(text.trim()));
    this.#ownFields(record, fields);
    for (const { name, index } of this.#columns.get('attribute') ?? []) if (record.cells[index] !== null) fields[attributeField(name)] = record.cells[index] ?? '';
    this.#check(record, fields);
    return fields;
  }

  #text(record: SourceRecord, field: 'text' | 'module' | 'source' | 'link'): string {
    const cell = this.#cell(record, field);
    if (field === 'text') return cell.replaceAll(/\r\n?/g, '\n');
    // Sheets have spaces around that nobody sees, and would make two modules of one; what we wrote ourselves is as it was.
    return field === 'module' && this.#cell(record, 'ownId') === '' ? cell.replaceAll(/\s+/g, ' ').trim() : cell;
  }

  /** Fields of the project's own; what does not fit one is named and left as it is in the project. */
  #ownFields(record: SourceRecord, fields: Partial<Record<FieldName, string>>): void {
    for (const own of ownFieldsOf(this.#own, 'requirement')) {
      const field = ownFieldName(own.id);
      if (!this.#speaksOf(record, field)) continue;
      const text = this.#cell(record, field);
      if (writeOwn(own, text) !== null) fields[field] = text;
      else this.#problems.push(warning({ code: 'value_unknown', field: own.name, value: text.slice(0, 100) }, at(record.line, this.#columnOf(field))));
    }
  }

  #title(record: SourceRecord, fields: Partial<Record<FieldName, string>>): void {
    const title = this.#cell(record, 'title').replaceAll(/\s*[\r\n]+\s*/g, ' ');
    const place = at(record.line, this.#columns.get('title')?.[0]?.name ?? null);
    if (title.trim() !== '') fields.title = title;
    else if (!this.#speaksOf(record, 'title') && this.#cell(record, 'ownId') !== '') return;
    else if ((fields.text ?? '').trim() === '') this.#refuse({ code: 'title_missing' }, record.line, place.column);
    else {
      fields.title = firstWords(fields.text ?? '');
      this.#problems.push(warning({ code: 'title_from_text' }, place));
    }
  }

  /** A value of a closed set; what is not understood is named and left as it is in the project. */
  #closed(record: SourceRecord, fields: Partial<Record<FieldName, string>>, field: 'type' | 'risk' | 'priority' | 'likelihood' | 'impact', knows: (text: string) => boolean): void {
    const columns = (this.#columns.get(field) ?? []).filter(({ index }) => record.cells[index] !== null);
    const column = columns.find(({ index }) => (record.cells[index] ?? '').trim() !== '') ?? columns[0];
    if (column === undefined) return;
    const text = (record.cells[column.index] ?? '').trim();
    if (text === '') {
      if (field === 'likelihood' || field === 'impact') fields[field] = '';
    } else if (knows(text)) fields[field] = text;
    else this.#problems.push(warning({ code: 'value_unknown', field, value: text.slice(0, 100) }, at(record.line, column.name)));
  }

  #check(record: SourceRecord, fields: Partial<Record<FieldName, string>>): void {
    for (const [field, value = ''] of Object.entries(fields)) {
      const limit = field === 'text' ? this.#limits.text : field === 'module' ? this.#limits.name : field.startsWith('attribute:') || field.startsWith('own:') ? this.#limits.text : this.#limits.title;
      const faults: FileFault[] = [];
      const name = ownFieldNamed(field, this.#own)?.name ?? field;
      if (value.length > limit) faults.push({ code: 'field_too_long', field: name, limit, got: value.length });
      if (value.includes('\0') || !value.isWellFormed()) faults.push({ code: 'control_characters', field: name });
      for (const fault of faults) this.#refuse(fault, record.line, this.#columnOf(field));
    }
  }

  #columnOf(field: string): string | null {
    return field.startsWith('attribute:') ? field.slice(10) : (this.#columns.get(field as Target)?.[0]?.name ?? this.#document.columns[0] ?? null);
  }
}

function relationFault(id: string, kind: string, met: ReadonlySet<string>, limits: FieldLimits): RelationFault | null {
  if (id.trim() === '') return 'without_id';
  if (met.has(id)) return 'id_doubled';
  if (id.length > limits.title || kind.length > limits.name) return 'too_long';
  return met.size >= limits.relations ? 'too_many' : null;
}

const TITLE_WORDS = 80;

/** The beginning of a text as a title: up to the first sentence's end, at most so many characters. */
export function firstWords(text: string): string {
  const plain = text.replaceAll(/[*_`#>|]+/g, '').replaceAll(/\s+/g, ' ').trim();
  const sentence = /^.{1,80}?[.!?](?=\s|$)/.exec(plain)?.[0].slice(0, -1) ?? plain;
  return sentence.length <= TITLE_WORDS ? sentence : `${sentence.slice(0, TITLE_WORDS).replace(/\s+\S*$/, '')} …`;
}

function withoutDoubles(entries: readonly Entry[], problems: FileProblem[]): Entry[] {
  const first = new Map<string, number>();
  return entries.filter(({ key, line }) => {
    const before = first.get(key);
    if (before === undefined) first.set(key, line);
    else problems.push(error({ code: 'id_doubled', id: key, first: before }, at(line)));
    return before === undefined;
  });
}

/** Parents from a column of levels: `2`, or an outline number `1.2.1`. */
function withLevels(document: SourceDocument, mapping: Mapping, entries: readonly Entry[]): readonly Entry[] {
  const column = document.columns.findIndex((name) => mapping.columns[name] === 'level');
  if (column < 0 || entries.some((e) => e.parent !== undefined)) return entries;
  const cells = new Map(document.records.map((r) => [r.line, (r.cells[column] ?? '').trim()]));
  const numbered = [...cells.values()].some((cell) => /^\d+\.\d/.test(cell));
  const open: { level: number; key: string }[] = [];
  return entries.map((entry) => {
    const level = levelOf(cells.get(entry.line) ?? '', numbered);
    while (open.length > 0 && (open.at(-1)?.level ?? 0) >= level) open.pop();
    const parent = open.at(-1)?.key ?? null;
    open.push({ level, key: entry.key });
    return { ...entry, parent };
  });
}

/** `2` is a level, or in a column of outline numbers the second at the top. */
function levelOf(text: string, numbered: boolean): number {
  if (!/^\d{1,6}(?:\.\d+)*\.?$/.test(text)) return 1;
  return numbered ? text.replace(/\.$/, '').split('.').length : Number.parseInt(text, 10);
}

/** Who names an unknown parent stands at the top; who stands below itself is refused. */
function inOutline(entries: readonly Entry[], problems: FileProblem[]): Entry[] {
  const byKey = new Map(entries.flatMap((e) => [[e.key, e] as const, ...(e.ownId === null ? [] : [[e.ownId as string, e] as const])]));
  const depths = new Map<string, number>();
  const circle = new Set<Entry>();
  const depthOf = (entry: Entry): number => {
    const path: Entry[] = [];
    let current: Entry | undefined = entry;
    while (current !== undefined && !depths.has(current.key) && !circle.has(current)) {
      const from = path.indexOf(current);
      if (from >= 0) {
        const ids = path.slice(from).map((e) => e.key);
        problems.push(error({ code: 'parent_circle', ids: ids.slice(0, 20) }, at(entry.line)));
        for (const member of path.slice(from)) circle.add(member);
        break;
      }
      path.push(current);
      current = typeof current.parent === 'string' ? byKey.get(current.parent) : undefined;
    }
    let depth = current !== undefined && depths.has(current.key) ? (depths.get(current.key) ?? 0) : -1;
    for (const member of path.reverse()) if (!circle.has(member)) depths.set(member.key, (depth += 1));
    return depths.get(entry.key) ?? -1;
  };
  const kept = entries.filter((entry) => {
    const depth = depthOf(entry);
    if (depth >= DEEPEST_OUTLINE) problems.push(error({ code: 'outline_too_deep', limit: DEEPEST_OUTLINE }, at(entry.line)));
    return depth >= 0 && depth < DEEPEST_OUTLINE && !circle.has(entry);
  });
  return kept.map((entry) => settledParent(entry, byKey, circle, problems));
}

/** A parent by its key, whichever id the file names it by. A parent in the project is told apart later. */
function settledParent(entry: Entry, byKey: ReadonlyMap<string, Entry>, circle: ReadonlySet<Entry>, problems: FileProblem[]): Entry {
  if (typeof entry.parent !== 'string') return entry;
  const parent = byKey.get(entry.parent);
  if (parent !== undefined && !circle.has(parent)) return { ...entry, parent: parent.key };
  if (parseArtefactId(entry.parent)?.kind === 'requirement' && entry.ownId !== null) return entry;
  problems.push(warning({ code: 'parent_unknown', parent: entry.parent.slice(0, 200) }, at(entry.line)));
  return { ...entry, parent: null };
}
