import type { ArtefactId } from '../artefacts/index.ts';
import { filesMarkdown } from '../attachments/index.ts';
import { ownColumnName, ownFieldsOf } from '../fields/index.ts';
import { ownIdColumn, type SourceDocument, type SourceRecord } from '../exchange/index.ts';
import { attachedOf } from './attachedOf.ts';
import { CASE_COLUMNS, isCaseColumnName } from './caseColumn.ts';
import { caseFieldText, type CaseField } from './caseField.ts';
import type { CaseTableOptions, ExportedCase } from './caseTable.ts';
import { actionCell, fileStepOf, numberedSteps } from './stepText.ts';

const FACTS: readonly (readonly [string, CaseField])[] = [['Module', 'module'], ['Priority', 'priority'], ['Owner', 'owner'], ['Kind', 'kind'], ['Execution', 'execution'], ['Minutes', 'minutes'], ['Tags', 'tags'], ['Conditions', 'conditions']];

/** Which case and version a section of ours is of, unseen where it is shown. */
const MARK = /^<!-- caderno: (\S+) (C-\d+) v(\d+) -->\s*$/;

/** Cases as a Markdown document, piece by piece. Texts stand as quotations and steps in a list, so that nothing in them parts the document. */
export function* caseMarkdown(cases: Iterable<ExportedCase>, options: Omit<CaseTableOptions, 'layout'>): Generator<string> {
  yield `# Cases of ${options.project}\n`;
  for (const one of cases) yield `\n${sectionOf(one, options)}`;
}

function sectionOf({ id, version, content, design }: ExportedCase, { project, fields, titleOf, figures, beside }: Omit<CaseTableOptions, 'layout'>): string {
  const own = ownFieldsOf(fields, 'case');
  const facts = [...FACTS.map(([name, field]) => [name, caseFieldText(content, field, fields)] as const), ...own.map((field) => [ownColumnName(field, CASE_COLUMNS), caseFieldText(content, `own:${field.id}`, fields)] as const)];
  const figure = figures && design !== null ? [`Requirements of the conditions: ${design.requirements.join(', ')}`, `Instances: ${design.instances}`] : [];
  const files = beside === null ? '' : filesMarkdown(beside.of(id, attachedOf(content)));
  const parts = [
    `## ${oneLine(content.title)} {#${id}}`,
    `<!-- caderno: ${project} ${id} v${version} -->`,
    [...facts.filter(([, text]) => text !== '').map(([name, text]) => fact(name, text)), ...figure.map((line) => `- ${line}`), ...(files === '' ? [] : [fact('Attached files', files)])].join('\n'),
    quotation('Objective', content.objective),
    quotation('Preconditions', content.preconditions),
    stepList(content.steps.map(fileStepOf).map((step) => ({ action: actionCell(step, titleOf), expected: step.kind === 'plain' ? step.expected : '' }))),
  ];
  return `${parts.filter((part) => part !== '').join('\n\n')}\n`;
}

/** A fact of several lines goes on below, standing in. */
function fact(name: string, text: string): string {
  return `- ${name}: ${text.replaceAll('\n', '\n  ')}`;
}

function quotation(name: string, text: string): string {
  return text === '' ? '' : `**${name}**\n\n${text.split('\n').map((line) => `> ${line}`).join('\n')}`;
}

function stepList(steps: readonly { readonly action: string; readonly expected: string }[]): string {
  if (steps.length === 0) return '';
  const items = steps.map(({ action, expected }, i) => {
    const mark = `${i + 1}. `;
    const lines = [...action.split('\n').map(keptFromArrow), ...(expected === '' ? [] : expected.split('\n').map((line, at) => (at === 0 ? `=> ${line}` : keptFromArrow(line))))];
    return mark + lines.join(`\n${' '.repeat(mark.length)}`);
  });
  return `**Steps**\n\n${items.join('\n')}`;
}

/** A line that would read as what is expected. */
function keptFromArrow(line: string): string {
  return /^\\*=>/.test(line) ? `\\${line}` : line;
}

function oneLine(text: string): string {
  return text.replaceAll(/\s+/g, ' ').trim();
}

/** A line that names a part of a case: `**Steps**`, `Preconditions:`. */
const LABEL = /^(?:\*\*|__)?(objective|purpose|goal|description|pre-?conditions?|set-?up|steps?|test steps?|procedure|expected(?: results?)?)(?:\*\*|__)?\s*:?\s*(?:\*\*|__)?\s*$/i;
const FACT = /^\s*(?:[-*+]\s+)?(?:\*\*|__)?([\p{L}][^:*_\n]{0,60}?)(?:\*\*|__)?\s*:\s*(?:\*\*|__)?\s*(.*)$/u;
/** As we write it: signs in the value are its own. */
const OWN_FACT = /^- ([^:\n]+): (.*)$/;
const ITEM = /^(\s*)(\(?\d{1,4}[.)]|[-*+])(\s+|$)(.*)$/;

/**
 * A Markdown document as a table of cases: a heading is a case, headings above cases that hold no steps are their
 * modules, and headings below that name a part (Steps, Preconditions) are that part.
 */
export function casesInMarkdown(document: SourceDocument): SourceDocument {
  const sections = withParts(document.records.map(readSection));
  const parents = new Set(sections.map((s) => s.parent).filter((p) => p !== null));
  const isGroup = (section: Section): boolean => section.steps.length === 0 && section.own === null && parents.has(section.id);
  const moduleOf = (section: Section): string => {
    const above = sections.find((s) => s.id === section.parent);
    return above === undefined || !isGroup(above) || above.title.startsWith('Cases of ') ? '' : above.title;
  };
  const cases = sections.filter((section) => !isGroup(section));
  const project = cases.find((c) => c.own !== null)?.own?.project;
  const known = [...new Set(cases.flatMap((c) => [...c.facts.keys()]))];
  const hasModule = known.some((name) => name.toLowerCase() === 'module');
  const columns = [...(project === undefined ? ['id'] : [ownIdColumn(project), 'version']), 'title', ...(hasModule ? [] : ['module']), ...known, 'objective', 'preconditions', 'steps', 'expected results'];
  const records = cases.map((section): SourceRecord => {
    const ids = project === undefined ? [section.id.startsWith('/') || section.id.includes('/') ? '' : section.id] : [section.own?.id ?? '', section.own?.version ?? ''];
    return { line: section.line, place: null, relations: [], cells: [...ids, section.title, ...(hasModule ? [] : [moduleOf(section)]), ...known.map((name) => section.facts.get(name) ?? ''), section.objective, section.preconditions, numberedSteps(section.steps.map((s) => s.action), true), numberedSteps(section.steps.map((s) => s.expected), false)] };
  });
  // Where no heading has an id there is no column of them.
  const withoutIds = project === undefined && records.every((r) => r.cells[0] === '');
  return { ...document, columns: withoutIds ? columns.slice(1) : columns, records: withoutIds ? records.map((r) => ({ ...r, cells: r.cells.slice(1) })) : records };
}

interface Section {
  readonly id: string;
  readonly parent: string | null;
  readonly line: number;
  readonly title: string;
  readonly own: { readonly project: string; readonly id: ArtefactId; readonly version: string } | null;
  readonly facts: ReadonlyMap<string, string>;
  readonly objective: string;
  readonly preconditions: string;
  readonly steps: readonly { readonly action: string; readonly expected: string }[];
}

function readSection(record: SourceRecord): Section {
  const [, title = '', body = ''] = record.cells;
  const read = new SectionReader();
  for (const line of (body ?? '').split('\n')) read.line(line);
  return { id: record.place?.id ?? '', parent: record.place?.parent ?? null, line: record.line, title: title ?? '', ...read.done() };
}

type Part = 'before' | 'objective' | 'preconditions' | 'steps' | 'expected';

/** Reads the lines of a section one after the other. */
class SectionReader {
  #part: Part = 'before';
  #own: Section['own'] = null;
  readonly #facts = new Map<string, string>();
  #lastFact: string | null = null;
  readonly #texts: Record<'objective' | 'preconditions', string[]> = { objective: [], preconditions: [] };
  readonly #steps: { action: string[]; expected: string[] | null; indent: number }[] = [];

  line(line: string): void {
    const mark = MARK.exec(line);
    if (mark !== null) {
      this.#own = { project: mark[1] ?? '', id: (mark[2] ?? '') as ArtefactId, version: mark[3] ?? '' };
      return;
    }
    const label = LABEL.exec(line.trim())?.[1]?.toLowerCase();
    if (label !== undefined && !line.startsWith('>') && !line.startsWith('   ')) {
      this.#part = label.startsWith('pre') || label.startsWith('set') ? 'preconditions' : label.startsWith('expected') ? 'expected' : /^(?:step|test|proc)/.test(label) ? 'steps' : 'objective';
      return;
    }
    if (this.#isQuotation(line) || this.#goesOn(line) || this.#isFact(line) || this.#isStep(line)) return;
    if (line.trim() !== '' && this.#part !== 'steps') this.#texts[this.#part === 'preconditions' ? 'preconditions' : 'objective'].push(line);
  }

  done(): Pick<Section, 'own' | 'facts' | 'objective' | 'preconditions' | 'steps'> {
    const text = (lines: readonly string[]): string => lines.join('\n');
    const steps = this.#steps.map(({ action, expected }) => ({ action: trimmedEnd(action), expected: expected === null ? '' : trimmedEnd(expected) }));
    return { own: this.#own, facts: this.#facts, objective: text(this.#texts.objective), preconditions: text(this.#texts.preconditions), steps };
  }

  #isQuotation(line: string): boolean {
    if (!line.startsWith('>') || (this.#part !== 'objective' && this.#part !== 'preconditions')) return false;
    this.#texts[this.#part].push(line.replace(/^> ?/, ''));
    return true;
  }

  /** A line that belongs to the step, or to the fact, above it. */
  #goesOn(line: string): boolean {
    const step = this.#part === 'steps' || this.#part === 'expected' ? this.#steps.at(-1) : undefined;
    if (step !== undefined && (line.startsWith(' '.repeat(step.indent)) || line === '')) {
      const text = line.slice(step.indent);
      const [, expected] = /^(?:=>|⇒|\*{0,2}expected\*{0,2}\s*:\*{0,2})\s?(.*)$/i.exec(text.trimStart() === text || step.indent === 0 ? text : text.trimStart()) ?? [];
      if (expected !== undefined && step.expected === null) step.expected = [expected];
      else (step.expected ?? step.action).push(text.replace(/^\\(?=\\*=>)/, ''));
      return true;
    }
    if (this.#part === 'before' && this.#lastFact !== null && line.startsWith('  ')) {
      this.#facts.set(this.#lastFact, `${this.#facts.get(this.#lastFact) ?? ''}\n${line.slice(2)}`);
      return true;
    }
    return false;
  }

  #isFact(line: string): boolean {
    const [, name, value] = this.#part === 'before' ? ((this.#own === null ? FACT : OWN_FACT).exec(line) ?? []) : [];
    if (name === undefined || value === undefined || (this.#own === null && !isCaseColumnName(name.trim()))) return false;
    this.#facts.set(name.trim(), value);
    this.#lastFact = name.trim();
    return true;
  }

  #isStep(line: string): boolean {
    const [, indent = '', mark, gap = '', text = ''] = ITEM.exec(line) ?? [];
    // Numbers below a text are steps; dashes are lines of it.
    const isText = this.#part === 'objective' || this.#part === 'preconditions';
    if (mark === undefined || (isText && (this.#own !== null || !/\d/.test(mark)))) return false;
    this.#part = 'steps';
    const [action = '', ...expected] = this.#own === null ? text.split(/\s*(?:=>|⇒)\s*/) : [text.replace(/^\\(?=\\*=>)/, '')];
    this.#steps.push({ action: [action], expected: expected.length === 0 ? null : [expected.join(' ')], indent: indent.length + mark.length + Math.max(1, gap.length) });
    return true;
  }
}

/** Blank lines at the end are those between two blocks. */
function trimmedEnd(lines: readonly string[]): string {
  const last = lines.findLastIndex((line) => line !== '');
  return lines.slice(0, last + 1).join('\n');
}

const PART_HEADING = /^(?:(?:test )?steps?|procedure|pre-?conditions?|set-?up|objective|purpose|description|expected(?: results?)?)$/i;

/** Headings that name a part of the case above them become that part. */
function withParts(sections: readonly Section[]): Section[] {
  const made: Section[] = [];
  for (const section of sections) {
    const at = made.findIndex((s) => s.id === section.parent);
    const above = made[at];
    if (above === undefined || !PART_HEADING.test(section.title.trim())) made.push(section);
    else made[at] = joinedPart(above, section);
  }
  return made;
}

function joinedPart(above: Section, part: Section): Section {
  const text = [part.objective, ...(/^(?:step|test|proc|expected)/i.test(part.title) ? [] : part.steps.map((s) => `- ${s.action}`))].filter((t) => t !== '').join('\n');
  if (/^pre|^set/i.test(part.title)) return { ...above, preconditions: [above.preconditions, text].filter(Boolean).join('\n') };
  if (/^expected/i.test(part.title)) return { ...above, steps: above.steps.map((step, i) => ({ ...step, expected: step.expected || (part.steps[i]?.action ?? (i === above.steps.length - 1 ? text : '')) })) };
  if (/^(?:step|test|proc)/i.test(part.title)) return { ...above, steps: [...above.steps, ...part.steps, ...(part.steps.length === 0 && text !== '' ? text.split('\n').map((action) => ({ action, expected: '' })) : [])] };
  return { ...above, objective: [above.objective, text].filter(Boolean).join('\n') };
}
