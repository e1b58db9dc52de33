import { parseArtefactId, type CaseId, type ConditionId, type Priority, type RequirementId } from '../artefacts/index.ts';
import { stepsOfTable, type ColumnRole, type PastedStep } from '../cases/index.ts';
import { writeOwn, type OwnField } from '../fields/index.ts';
import { at, error, readPriority, warning, type FileFault, type FileProblem, type SourceDocument, type SourceRecord } from '../exchange/index.ts';
import type { CaseMapping, CaseTarget } from './caseColumn.ts';
import { readExecution, readKind, readMinutes, type TextField } from './caseField.ts';
import { holdsSteps, numberedLines, stepsInCells } from './stepCells.ts';
import { fileStep, type FileStep } from './stepText.ts';

/** A case as a file brings it. */
export interface CaseEntry {
  readonly line: number;
  /** The id the source gives it; its title, with its turn, where there is none. */
  readonly key: string;
  readonly ownId: CaseId | null;
  /** The version the file was written from; null: it does not say. */
  readonly version: number | null;
  /** Fields with a text of their own; one that is not there is not spoken of. */
  readonly fields: Readonly<Partial<Record<TextField, string>>>;
  /** Null: the file has no column of steps. */
  readonly steps: readonly FileStep[] | null;
  /** Null: the file has no column of conditions. */
  readonly conditions: readonly ConditionId[] | null;
  readonly requirements: readonly RequirementId[];
}

export interface CaseEntries {
  readonly entries: readonly CaseEntry[];
  readonly problems: readonly FileProblem[];
}

/** What of the project a file of cases may name. */
export interface CaseFileNames {
  readonly fields: readonly OwnField[];
  readonly priorities: readonly Priority[];
  /** A requirement by its id here, its id in its source, or its title. */
  readonly requirement: (name: string) => RequirementId | null;
  readonly condition: (id: ConditionId) => boolean;
  readonly used: (id: string) => boolean;
}

/** Most characters and elements a case may have. */
export interface CaseLimits {
  readonly title: number;
  readonly name: number;
  readonly text: number;
  readonly line: number;
  readonly steps: number;
}

const CASE_TEXTS = ['title', 'objective', 'preconditions', 'module', 'owner', 'tags', 'priority', 'kind', 'execution', 'minutes'] as const;

/** The cases of a document under a mapping, in its order, with every problem by its place. */
export function caseEntriesOf(document: SourceDocument, mapping: CaseMapping, names: CaseFileNames, limits: CaseLimits): CaseEntries {
  const problems: FileProblem[] = [...document.problems];
  if (document.problems.some((p) => p.severity === 'error' && p.line === null)) return { entries: [], problems };
  const reader = new CaseReader(document, mapping, names, limits, problems);
  return { entries: reader.read(), problems };
}

interface Group {
  readonly first: SourceRecord;
  readonly records: SourceRecord[];
}

/** Where a key stood first, and how often it has stood. */
interface Seen {
  readonly line: number;
  readonly turns: number;
}

class CaseReader {
  readonly #document: SourceDocument;
  readonly #mapping: CaseMapping;
  readonly #names: CaseFileNames;
  readonly #limits: CaseLimits;
  readonly #problems: FileProblem[];
  readonly #columns = new Map<CaseTarget, { readonly name: string; readonly index: number }[]>();
  /** A file of ours: its cells are what stands here, letter for letter. */
  readonly #isOwn: boolean;
  /** Problems so far that keep a case out. */
  #errors = 0;

  constructor(document: SourceDocument, mapping: CaseMapping, names: CaseFileNames, limits: CaseLimits, problems: FileProblem[]) {
    this.#document = document;
    this.#mapping = mapping;
    this.#names = names;
    this.#limits = limits;
    this.#problems = problems;
    document.columns.forEach((name, index) => {
      const target = mapping.columns[name] ?? 'leave';
      this.#columns.set(target, [...(this.#columns.get(target) ?? []), { name, index }]);
    });
    this.#isOwn = this.#columns.has('ownId');
    if (!this.#columns.has('id') && !this.#isOwn && document.records.length > 0) problems.push(warning({ code: 'id_missing' }));
  }

  read(): CaseEntry[] {
    const entries: CaseEntry[] = [];
    const seen = new Map<string, Seen>();
    let module = this.#mapping.module;
    for (const group of this.#groups()) {
      const heading = this.#headingOf(group);
      if (heading !== null) {
        module = heading;
        continue;
      }
      const entry = this.#entry(group, module, seen);
      if (entry !== null) entries.push(entry);
    }
    return entries;
  }

  /** Records that belong together, in their order. */
  #groups(): Group[] {
    const groups: Group[] = [];
    let id = '';
    let title = '';
    for (const record of this.#document.records) {
      const named = this.#cell(record, 'ownId').trim() || this.#cell(record, 'id').trim();
      const name = this.#cell(record, 'title').trim();
      const begins = this.#mapping.layout === 'caseRows' || groups.length === 0 || (named !== '' ? named !== id : name !== '' && name !== title);
      if (begins) {
        groups.push({ first: record, records: [record] });
        [id, title] = [named, name];
      } else groups.at(-1)?.records.push(record);
    }
    return groups;
  }

  /** The one text of a row that has no other and no steps; null: it is a case. Alone in a column of titles it is a case without steps, unless others have some. */
  #headingOf({ first, records }: Group): string | null {
    if (!this.#mapping.headings || records.length > 1 || this.#mapping.layout === 'caseRows' && this.#document.columns.length < 3) return null;
    const filled = first.cells.flatMap((cell, i) => ((cell ?? '').trim() === '' ? [] : [i]));
    const [only] = filled;
    if (only === undefined || filled.length > 1) return null;
    const target = this.#mapping.columns[this.#document.columns[only] ?? ''] ?? 'leave';
    if (target === 'action' || target === 'expected' || this.#isOwn) return null;
    return (first.cells[only] ?? '').replaceAll(/\s+/g, ' ').trim().slice(0, this.#limits.name).toWellFormed();
  }

  #entry(group: Group, module: string, seen: Map<string, Seen>): CaseEntry | null {
    const { first } = group;
    const errors = this.#errors;
    const fields = this.#fields(group, module);
    const steps = this.#columns.has('action') || this.#columns.has('expected') ? this.#steps(group) : null;
    const title = fields.title ?? '';
    if (title.trim() === '') this.#problem(error({ code: 'title_missing' }, this.#place(first, 'title')));
    if (this.#errors > errors) return null;
    const own = this.#cell(first, 'ownId').trim();
    const id = this.#cell(first, 'id').trim();
    const base = id !== '' ? id : own !== '' ? own : `title: ${title.trim()}`;
    const before = seen.get(base);
    const turn = (before?.turns ?? 0) + 1;
    seen.set(base, { line: before?.line ?? first.line, turns: turn });
    if (before !== undefined && id !== '') {
      this.#problem(error({ code: 'id_doubled', id, first: before.line }, this.#place(first, 'id')));
      return null;
    }
    const version = Number(this.#cell(first, 'version'));
    return {
      line: first.line,
      key: `${base}${turn > 1 ? ` (${turn})` : ''}`.slice(0, 300).toWellFormed(),
      ownId: parseArtefactId(own)?.kind === 'case' ? (own as CaseId) : null,
      version: Number.isInteger(version) && version > 0 ? version : null,
      fields,
      steps,
      conditions: this.#columns.has('conditions') ? this.#conditions(group) : null,
      requirements: this.#requirements(group),
    };
  }

  #fields(group: Group, module: string): CaseEntry['fields'] {
    const fields: Partial<Record<TextField, string>> = {};
    for (const field of CASE_TEXTS) {
      if (!this.#columns.has(field)) continue;
      const text = this.#caseCell(group, field);
      const read = this.#read(field, text, group.first);
      if (read !== null) fields[field] = read;
    }
    if ((fields.module ?? '') === '' && module !== '') fields.module = module;
    for (const own of this.#names.fields) {
      const field = `own:${own.id}` as const;
      if (!this.#columns.has(field)) continue;
      const text = this.#caseCell(group, field);
      if (writeOwn(own, text) === null) this.#problem(warning({ code: 'value_unknown', field: own.name, value: text.slice(0, 100) }, this.#place(group.first, field)));
      else fields[field] = text;
    }
    return fields;
  }

  /** A text of a field as it is taken in; null: it is not understood, and said so, or says nothing of a closed set. */
  #read(field: (typeof CASE_TEXTS)[number], text: string, record: SourceRecord): string | null {
    const closed = { priority: (name: string) => readPriority(name, this.#names.priorities), kind: readKind, execution: readExecution, minutes: readMinutes } as const;
    if (field === 'priority' || field === 'kind' || field === 'execution' || field === 'minutes') {
      if (text.trim() === '') return field === 'minutes' ? '' : null;
      if (field === 'priority' && closed.priority(text) !== null) return closed.priority(text);
      if (closed[field](text) !== null) return text.trim();
      this.#problem(warning({ code: 'value_unknown', field, value: text.slice(0, 100) }, this.#place(record, field)));
      return null;
    }
    const isLong = field === 'objective' || field === 'preconditions';
    const kept = this.#isOwn || isLong ? text.replaceAll(/\r\n?/g, '\n') : text.replaceAll(/\s+/g, ' ').trim();
    this.#refuseLong(field, kept, field === 'title' ? this.#limits.title : isLong ? this.#limits.text : field === 'tags' ? this.#limits.text : this.#limits.name, record);
    return kept;
  }

  #steps(group: Group): FileStep[] {
    // Among rows of steps a case of one row may hold all of its steps in a cell.
    const inCells = this.#mapping.layout === 'caseRows' || (group.records.length === 1 && holdsSteps(this.#text(group.first, 'action')));
    const steps = this.#isOwn ? this.#ownSteps(group) : (inCells ? this.#stepsOfCells(group.first) : this.#stepsOfRows(group)).map(({ action, expected }) => fileStep(action, expected));
    if (steps.length > this.#limits.steps) this.#problem(error({ code: 'too_many_steps', limit: this.#limits.steps, got: steps.length }, this.#place(group.first, 'action')));
    for (const step of steps) {
      if (step.kind === 'plain') for (const text of [step.action, step.expected]) this.#refuseLong('step', text, this.#limits.line, group.first);
    }
    return steps.map((step) => {
      if (step.kind === 'plain' || this.#names.used(step.of)) return step;
      this.#problem(warning({ code: 'use_unknown', id: step.of }, this.#place(group.first, 'action')));
      return { kind: 'plain' as const, action: `${step.of}`, expected: '' };
    });
  }

  #ownSteps({ records }: Group): FileStep[] {
    if (this.#mapping.layout === 'stepRows') {
      return records.flatMap((record) => {
        const [action, expected] = [this.#exact(record, 'action'), this.#exact(record, 'expected')];
        // A case without steps has one row.
        return action === '' && expected === '' && this.#exact(record, 'number') === '' ? [] : [fileStep(action, expected)];
      });
    }
    const [record] = records;
    if (record === undefined) return [];
    const actions = numberedLines(this.#exact(record, 'action'));
    const results = numberedLines(this.#exact(record, 'expected'));
    return Array.from({ length: Math.max(0, ...actions.keys(), ...results.keys()) }, (_, i) => fileStep(actions.get(i + 1) ?? '', results.get(i + 1) ?? ''));
  }

  #stepsOfRows({ records }: Group): PastedStep[] {
    const roles: ColumnRole[] = ['action', 'data', 'expected'];
    // A row among them may hold several steps in its cell; with data beside them nobody knows to which it belongs.
    const rows = records.flatMap((record) => {
      const data = this.#text(record, 'data');
      if (data.trim() === '' && holdsSteps(this.#text(record, 'action'))) return this.#stepsOfCells(record).map(({ action, expected }) => [action, '', expected]);
      return [[this.#text(record, 'action'), data, this.#text(record, 'expected')]];
    });
    return stepsOfTable({ rows }, roles);
  }

  #stepsOfCells(record: SourceRecord): PastedStep[] {
    return stepsInCells(this.#text(record, 'action'), this.#text(record, 'expected'));
  }

  #conditions(group: Group): ConditionId[] {
    return this.#listed(group, 'conditions').flatMap((name) => {
      const id = parseArtefactId(/^K-\d+/i.exec(name)?.[0].toUpperCase() ?? '');
      const condition = id === null ? null : (`K-${id.number}` as ConditionId);
      if (condition !== null && this.#names.condition(condition)) return [condition];
      this.#problem(warning({ code: 'value_unknown', field: 'conditions', value: name.slice(0, 100) }, this.#place(group.first, 'conditions')));
      return [];
    });
  }

  /** Requirements by whatever names them; a title may hold commas itself. */
  #requirements(group: Group): RequirementId[] {
    const found = (this.#columns.get('requirements') ?? []).flatMap(({ index }) => {
      const whole = group.records.map((r) => (r.cells[index] ?? '').trim()).find((cell) => cell !== '') ?? '';
      const one = whole === '' ? null : this.#names.requirement(whole);
      if (whole === '' || one !== null) return one === null ? [] : [one];
      return whole.split(/[,;\n]/).map((name) => name.trim()).filter((name) => name !== '').flatMap((name) => {
        const id = this.#names.requirement(name);
        if (id === null) this.#problem(warning({ code: 'value_unknown', field: 'requirements', value: name.slice(0, 100) }, this.#place(group.first, 'requirements')));
        return id ?? [];
      });
    });
    return [...new Set(found)];
  }

  #listed(group: Group, target: CaseTarget): string[] {
    return this.#caseCell(group, target).split(/[,;\n]/).map((name) => name.trim()).filter((name) => name !== '');
  }

  /** A cell of the whole case: it stands in its first row, or again in each. Another text in a later row is left out, and named. */
  #caseCell({ first, records }: Group, target: CaseTarget): string {
    const text = this.#cell(first, target);
    for (const record of records.slice(1)) {
      const other = this.#cell(record, target);
      if (other.trim() === '' || other.trim() === text.trim()) continue;
      if (text.trim() === '') return other;
      this.#problem(warning({ code: 'case_cell_differs', value: other.slice(0, 100) }, this.#place(record, target)));
      break;
    }
    return text;
  }

  #cell(record: SourceRecord, target: CaseTarget): string {
    const columns = this.#columns.get(target) ?? [];
    const cells = columns.map(({ index }) => record.cells[index] ?? '').filter((cell) => cell.trim() !== '');
    return cells.join(', ');
  }

  #exact(record: SourceRecord, target: CaseTarget): string {
    const [column] = this.#columns.get(target) ?? [];
    return column === undefined ? '' : (record.cells[column.index] ?? '').replaceAll(/\r\n?/g, '\n');
  }

  #text(record: SourceRecord, target: CaseTarget): string {
    return (this.#columns.get(target) ?? []).map(({ index }) => (record.cells[index] ?? '').replaceAll(/\r\n?/g, '\n').trim()).filter((cell) => cell !== '').join(', ');
  }

  #refuseLong(field: string, text: string, limit: number, record: SourceRecord): void {
    const faults: FileFault[] = [];
    if (text.length > limit) faults.push({ code: 'field_too_long', field, limit, got: text.length });
    if (text.includes('\0') || !text.isWellFormed()) faults.push({ code: 'control_characters', field });
    for (const fault of faults) this.#problem(error(fault, this.#place(record, field === 'step' ? 'action' : (field as CaseTarget))));
  }

  #place(record: SourceRecord, target: CaseTarget) {
    return at(record.line, this.#columns.get(target)?.[0]?.name ?? null);
  }

  #problem(problem: FileProblem): void {
    if (problem.severity === 'error') this.#errors += 1;
    this.#problems.push(problem);
  }
}
