import type { ArtefactState, RequirementId } from '../artefacts/index.ts';
import { FILES_COLUMN, filesCell, filesMarkdown, type Attached, type FilesBeside } from '../attachments/index.ts';
import type { RequirementContent } from '../basis/index.ts';
import { STANDINGS, itemsToShow, percentDown, shownRatio, type Standing, type StandingCounts } from '../coverage/index.ts';
import { ownColumnName, ownFieldsOf, ownQueryName, type OwnField } from '../fields/index.ts';
import { FIELDS, attributeField, fieldText, ownFieldName } from './field.ts';
import { BASIS_COLUMNS, DERIVED_COLUMNS, ownIdColumn } from './mapping.ts';
import type { MarkdownSection } from './markdown.ts';

/** A requirement as exports need it. */
export interface ExportedRequirement {
  readonly id: RequirementId;
  readonly version: number;
  readonly parent: RequirementId | null;
  readonly depth: number;
  readonly state: ArtefactState;
  readonly content: RequirementContent;
  /** Null: without conditions and figures. */
  readonly design: { readonly conditions: readonly { readonly id: string; readonly title: string }[]; readonly counts: StandingCounts } | null;
}

const STANDING_COLUMN: Readonly<Record<Standing, string>> = { shown: 'shown', linked: 'linked', gap: 'gap', waiting: 'waiting', suspect: 'suspect', leftOut: 'left out' };

/** The basis as a table; imported again it changes nothing. Columns after the attributes are for reading only. `beside`: where what is attached lies; null: it does not come along. */
export function exportTable(project: string, requirements: readonly ExportedRequirement[], fields: readonly OwnField[], withDesign: boolean, beside: FilesBeside | null = null): string[][] {
  const own = ownFieldsOf(fields, 'requirement');
  // Of a column that once came in and a field of the same name the field is written.
  const taken = new Set(own.map((f) => ownQueryName(ownColumnName(f, BASIS_COLUMNS))));
  const attributes = [...new Set(requirements.flatMap((r) => r.content.attributes.map((a) => a.id)))].filter((name) => !taken.has(ownQueryName(name)));
  const figures: readonly string[] = withDesign ? DERIVED_COLUMNS.slice(2) : [];
  const header = [ownIdColumn(project), 'version', 'parent', ...FIELDS.map((f) => (f === 'type' ? 'kind' : f)), ...own.map((f) => ownColumnName(f, BASIS_COLUMNS)), ...attributes, 'imported as', 'state', ...figures, ...(beside === null ? [] : [FILES_COLUMN])];
  const rows = requirements.map((r) => [
    r.id,
    String(r.version),
    r.parent ?? '',
    ...FIELDS.map((field) => fieldText(r.content, field, fields)),
    ...own.map((f) => fieldText(r.content, ownFieldName(f.id), fields)),
    ...attributes.map((name) => fieldText(r.content, attributeField(name), fields)),
    r.content.origin === null ? '' : `${r.content.origin.source} · ${r.content.origin.id}`,
    r.state,
    ...(withDesign ? designCells(r) : []),
    ...(beside === null ? [] : [filesCell(beside.of(r.id, attachedTo(r)))]),
  ]);
  return [header, ...rows];
}

function attachedTo({ content }: ExportedRequirement): Attached[] {
  return content.attachments.map((attachment) => ({ step: null, attachment }));
}

function designCells({ design }: ExportedRequirement): string[] {
  if (design === null) return DERIVED_COLUMNS.slice(2).map(() => '');
  const { conditions, counts } = design;
  const percent = percentDown(shownRatio(counts));
  const numbers = (['shown', 'linked', 'gap', 'waiting', 'suspect', 'leftOut'] as const).map((s) => String(counts[s]));
  return [conditions.map((c) => `${c.id} ${c.title}`).join('\n'), String(itemsToShow(counts) + counts.leftOut), ...numbers, percent === null ? '' : String(percent)];
}

/** The basis as sections of a Markdown document. */
export function exportSections(project: string, requirements: readonly ExportedRequirement[], beside: FilesBeside | null = null): MarkdownSection[] {
  // Two sources may call theirs the same; a document has every id once.
  const met = new Map<string, number>();
  for (const { content } of requirements) if (content.origin !== null) met.set(content.origin.id, (met.get(content.origin.id) ?? 0) + 1);
  return requirements.map((requirement) => {
    const { id, version, parent, depth, content, design } = requirement;
    const files = beside === null ? '' : filesMarkdown(beside.of(id, attachedTo(requirement)));
    return {
      depth,
      id: content.origin !== null && met.get(content.origin.id) === 1 && /^[^\s{}]{1,200}$/.test(content.origin.id) ? content.origin.id : id,
      own: { project, id, version, parent },
      title: content.title,
      facts: [...(design === null ? [] : sectionFacts(design)), ...(files === '' ? [] : [`Attached files: ${files}`])],
      text: content.text,
    };
  });
}

function sectionFacts({ conditions, counts }: NonNullable<ExportedRequirement['design']>): string[] {
  const percent = percentDown(shownRatio(counts));
  const figures = STANDINGS.filter((s) => counts[s] > 0).map((s) => `${counts[s]} ${STANDING_COLUMN[s]}`);
  return [percent === null ? 'Not analysed yet' : `Coverage: ${percent} % (${figures.join(', ')})`, ...conditions.map((c) => `${c.id} ${c.title}`)];
}
