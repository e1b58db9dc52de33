import { percentDown, shownRatio } from '../coverage/index.ts';
import type { ExportedRequirement } from './basisExport.ts';
import { ownColumnName, ownFieldsOf, ownQueryName, type OwnField } from '../fields/index.ts';
import { FIELDS, attributeField, attributeName, fieldText, ownFieldName, ownFieldNamed, type FieldName } from './field.ts';
import { BASIS_COLUMNS, ownIdColumn, ownVersionColumn, type Mapping, type Target } from './mapping.ts';
import type { DatatypeKind, ReqifAttribute, ReqifDatatype, ReqifObject, ReqifSpecType, ReqifTypes } from './reqifTypes.ts';
import { isSamePriority, readRisk, readType } from './vocabulary.ts';
import { xhtmlOfMarkdown } from './xhtml.ts';
import { attributeText } from './xmlTree.ts';

/** A source whose requirements came by ReqIF: its types and how its attributes were matched. */
export interface ReqifSource {
  readonly types: ReqifTypes;
  readonly mapping: Mapping;
}

export interface ReqifExport {
  readonly project: string;
  readonly title: string;
  /** ISO date and time; the document's own. */
  readonly at: string;
  readonly requirements: readonly ExportedRequirement[];
  /** The fields of the project's own. */
  readonly fields: readonly OwnField[];
  /** By the name of the source. */
  readonly sources: ReadonlyMap<string, ReqifSource>;
  /** What was kept of each imported object. */
  readonly objects: ReadonlyMap<string, ReqifObject>;
}

const OWN = 'caderno';
const OWN_TYPE = `_${OWN}-requirement`;
const OWN_FIELDS: readonly (readonly [FieldName, DatatypeKind, string])[] = [
  ['title', 'STRING', 'ReqIF.Name'],
  ['text', 'XHTML', 'ReqIF.Text'],
  ...FIELDS.filter((f) => f !== 'title' && f !== 'text').map((f): readonly [FieldName, DatatypeKind, string] => [f, 'STRING', f === 'type' ? 'kind' : f]),
];

/**
 * The basis as ReqIF 1.2. What came by ReqIF keeps identifiers, types, attributes and relations; the rest gets
 * identifiers that stay the same from export to export. Attributes Caderno added to such an object are not in its
 * type and stay behind.
 */
export function writeReqif(doc: ReqifExport): string {
  const writer = new ReqifWriter(doc);
  return `<?xml version="1.0" encoding="UTF-8"?>
<REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd" xmlns:xhtml="http://www.w3.org/1999/xhtml">
${writer.header()}
<CORE-CONTENT><REQ-IF-CONTENT>
<DATATYPES>${writer.datatypes()}</DATATYPES>
<SPEC-TYPES>${writer.specTypes()}</SPEC-TYPES>
<SPEC-OBJECTS>${writer.objects()}</SPEC-OBJECTS>
<SPEC-RELATIONS>${writer.relations()}</SPEC-RELATIONS>
<SPECIFICATIONS>${writer.specifications()}</SPECIFICATIONS>
</REQ-IF-CONTENT></CORE-CONTENT>
</REQ-IF>
`;
}

class ReqifWriter {
  readonly #doc: ReqifExport;
  readonly #types: ReqifTypes;
  readonly #specTypeById: ReadonlyMap<string, ReqifSpecType>;

  constructor(doc: ReqifExport) {
    this.#doc = doc;
    this.#types = allTypes(doc);
    this.#specTypeById = new Map(this.#types.specTypes.map((t) => [t.id, t]));
  }

  header(): string {
    const { title, at, project } = this.#doc;
    const [only] = [...this.#doc.sources.values()];
    const id = this.#doc.sources.size === 1 && only !== undefined && only.types.header.id !== '' ? only.types.header.id : `_${OWN}-${project}`;
    return `<THE-HEADER><REQ-IF-HEADER IDENTIFIER="${attributeText(id)}"><COMMENT>${attributeText(only?.types.header.comment ?? '')}</COMMENT><CREATION-TIME>${at}</CREATION-TIME><REQ-IF-TOOL-ID>Caderno</REQ-IF-TOOL-ID><REQ-IF-VERSION>1.0</REQ-IF-VERSION><SOURCE-TOOL-ID>Caderno</SOURCE-TOOL-ID><TITLE>${attributeText(title)}</TITLE></REQ-IF-HEADER></THE-HEADER>`;
  }

  datatypes(): string {
    return this.#types.datatypes.map((d) => this.#datatype(d)).join('\n');
  }

  #datatype({ id, name, kind, limits, values }: ReqifDatatype): string {
    const head = `<DATATYPE-DEFINITION-${kind} ${this.#named(id, name)}${Object.entries(limits).map(([n, v]) => ` ${n}="${attributeText(v)}"`).join('')}`;
    if (kind !== 'ENUMERATION') return `${head}/>`;
    const specified = values.map((v) => `<ENUM-VALUE ${this.#named(v.id, v.name)}><PROPERTIES><EMBEDDED-VALUE KEY="${attributeText(v.key)}" OTHER-CONTENT="${attributeText(v.other)}"/></PROPERTIES></ENUM-VALUE>`);
    return `${head}><SPECIFIED-VALUES>${specified.join('')}</SPECIFIED-VALUES></DATATYPE-DEFINITION-ENUMERATION>`;
  }

  specTypes(): string {
    return this.#types.specTypes
      .map(({ id, name, kind, attributes }) => `<${kind} ${this.#named(id, name)}>${attributes.length === 0 ? '' : `<SPEC-ATTRIBUTES>${attributes.map((a) => this.#attribute(a)).join('')}</SPEC-ATTRIBUTES>`}</${kind}>`)
      .join('\n');
  }

  #attribute({ id, name, kind, datatype, multiValued }: ReqifAttribute): string {
    const many = kind === 'ENUMERATION' ? ` MULTI-VALUED="${multiValued}"` : '';
    return `<ATTRIBUTE-DEFINITION-${kind} ${this.#named(id, name)}${many}><TYPE><DATATYPE-DEFINITION-${kind}-REF>${attributeText(datatype)}</DATATYPE-DEFINITION-${kind}-REF></TYPE></ATTRIBUTE-DEFINITION-${kind}>`;
  }

  objects(): string {
    return this.#doc.requirements.map((r) => this.#object(r)).join('\n');
  }

  #object(requirement: ExportedRequirement): string {
    const type = this.#typeOf(requirement);
    const fields = type.attributes.map((attribute) => this.#fieldOf(requirement, attribute));
    const values = type.attributes.flatMap((attribute, i) => {
      const own = this.#ownMark(requirement, attribute);
      if (own !== null) return this.#value(attribute, 'text', own);
      if (isDesignAttribute(attribute)) return this.#value(attribute, 'text', designText(requirement, attribute.name));
      const field = fields[i];
      // Of several attributes that were matched with one field the first carries it.
      return field === undefined || fields.indexOf(field) < i ? [] : this.#value(attribute, field, fieldText(requirement.content, field, this.#doc.fields));
    });
    return `<SPEC-OBJECT IDENTIFIER="${attributeText(this.#identifier(requirement))}" LAST-CHANGE="${this.#doc.at}"><TYPE><SPEC-OBJECT-TYPE-REF>${attributeText(type.id)}</SPEC-OBJECT-TYPE-REF></TYPE><VALUES>${values.join('')}</VALUES></SPEC-OBJECT>`;
  }

  /** What the project finds it by when the file comes back. */
  #ownMark({ id, version }: ExportedRequirement, attribute: ReqifAttribute): string | null {
    if (!attribute.id.startsWith(`_${OWN}-own-`)) return null;
    return attribute.name === ownIdColumn(this.#doc.project) ? id : String(version);
  }

  #identifier({ id, content }: ExportedRequirement): string {
    const imported = content.origin !== null && this.#doc.sources.has(content.origin.source);
    return imported ? (content.origin?.id ?? id) : `_${OWN}-${this.#doc.project}-${id}`;
  }

  #typeOf({ id }: ExportedRequirement): ReqifSpecType {
    const own = this.#specTypeById.get(this.#doc.objects.get(id)?.type ?? OWN_TYPE) ?? this.#specTypeById.get(OWN_TYPE);
    if (own === undefined) throw new Error(`A ReqIF export has its own object type: expected ${OWN_TYPE}`);
    return own;
  }

  /** The field an attribute was matched with. */
  #fieldOf({ content }: ExportedRequirement, attribute: ReqifAttribute): FieldName {
    const own = OWN_FIELDS.find(([field]) => attribute.id === ownAttributeId(field));
    if (own !== undefined) return own[0];
    const added = ownFieldsOf(this.#doc.fields, 'requirement').find(({ id }) => attribute.id === ownAttributeId(ownFieldName(id)));
    if (added !== undefined) return ownFieldName(added.id);
    const target: Target = this.#doc.sources.get(content.origin?.source ?? '')?.mapping.columns[attribute.name] ?? 'attribute';
    const named = ownFieldNamed(target, this.#doc.fields);
    return named === null ? (FIELDS.find((f) => f === target) ?? attributeField(attribute.name)) : ownFieldName(named.id);
  }

  #value(attribute: ReqifAttribute, field: FieldName, text: string): string[] {
    if (text === '') return [];
    const { kind } = attribute;
    const definition = `<DEFINITION><ATTRIBUTE-DEFINITION-${kind}-REF>${attributeText(attribute.id)}</ATTRIBUTE-DEFINITION-${kind}-REF></DEFINITION>`;
    if (kind === 'XHTML') return [`<ATTRIBUTE-VALUE-XHTML>${definition}<THE-VALUE><xhtml:div>${xhtmlOfMarkdown(text)}</xhtml:div></THE-VALUE></ATTRIBUTE-VALUE-XHTML>`];
    if (kind !== 'ENUMERATION') return [`<ATTRIBUTE-VALUE-${kind} THE-VALUE="${attributeText(text)}">${definition}</ATTRIBUTE-VALUE-${kind}>`];
    const values = this.#types.datatypes.find((d) => d.id === attribute.datatype)?.values ?? [];
    const refs = text.split('; ').flatMap((name) => values.find((v) => v.name.toLowerCase() === name.toLowerCase()) ?? values.find((v) => meansTheSame(field, v.name, name)) ?? []);
    return refs.length === 0 ? [] : [`<ATTRIBUTE-VALUE-ENUMERATION>${definition}<VALUES>${refs.map((v) => `<ENUM-VALUE-REF>${attributeText(v.id)}</ENUM-VALUE-REF>`).join('')}</VALUES></ATTRIBUTE-VALUE-ENUMERATION>`];
  }

  relations(): string {
    const byId = new Map(this.#doc.requirements.map((r) => [r.id, r]));
    return this.#doc.requirements
      .flatMap((r) =>
        r.content.relations.flatMap((relation) => {
          const target = byId.get(relation.to);
          return target === undefined ? [] : [this.#relation(relation, r, target)];
        }),
      )
      .join('\n');
  }

  #relation(relation: ExportedRequirement['content']['relations'][number], from: ExportedRequirement, to: ExportedRequirement): string {
    const type = this.#types.specTypes.find((t) => t.kind === 'SPEC-RELATION-TYPE' && t.name === relation.kind)?.id ?? ownRelationType(relation.kind);
    const id = /^[A-Za-z_][\w.-]*$/.test(relation.id) ? relation.id : `_${OWN}-${from.id}-${to.id}`;
    return `<SPEC-RELATION IDENTIFIER="${attributeText(id)}" LAST-CHANGE="${this.#doc.at}"><TYPE><SPEC-RELATION-TYPE-REF>${attributeText(type)}</SPEC-RELATION-TYPE-REF></TYPE><SOURCE><SPEC-OBJECT-REF>${attributeText(this.#identifier(from))}</SPEC-OBJECT-REF></SOURCE><TARGET><SPEC-OBJECT-REF>${attributeText(this.#identifier(to))}</SPEC-OBJECT-REF></TARGET></SPEC-RELATION>`;
  }

  /** Each requirement stands in the specification of the topmost one above it. */
  specifications(): string {
    const children = new Map<string | null, ExportedRequirement[]>();
    for (const r of this.#doc.requirements) children.set(r.parent, [...(children.get(r.parent) ?? []), r]);
    const hierarchy = (r: ExportedRequirement): string => {
      const below = (children.get(r.id) ?? []).map(hierarchy).join('');
      const id = this.#doc.objects.get(r.id)?.hierarchyId || `_${OWN}-h-${r.id}`;
      return `<SPEC-HIERARCHY ${this.#stamp(id)}><OBJECT><SPEC-OBJECT-REF>${attributeText(this.#identifier(r))}</SPEC-OBJECT-REF></OBJECT>${below === '' ? '' : `<CHILDREN>${below}</CHILDREN>`}</SPEC-HIERARCHY>`;
    };
    const top = children.get(null) ?? [];
    return this.#types.specifications
      .map((specification) => {
        const own = top.filter((r) => this.#specificationOf(r) === specification.id);
        const type = specification.type === '' ? '' : `<TYPE><SPECIFICATION-TYPE-REF>${attributeText(specification.type)}</SPECIFICATION-TYPE-REF></TYPE>`;
        return `<SPECIFICATION ${this.#named(specification.id, specification.name)}>${type}<CHILDREN>${own.map(hierarchy).join('\n')}</CHILDREN></SPECIFICATION>`;
      })
      .join('\n');
  }

  #specificationOf({ id }: ExportedRequirement): string {
    const kept = this.#doc.objects.get(id)?.specification ?? '';
    return this.#types.specifications.some((s) => s.id === kept) ? kept : `_${OWN}-specification`;
  }

  #named(id: string, name: string): string {
    return `${this.#stamp(id)} LONG-NAME="${attributeText(name)}"`;
  }

  #stamp(id: string): string {
    return `IDENTIFIER="${attributeText(id)}" LAST-CHANGE="${this.#doc.at}"`;
  }
}

/** By which the project finds its requirements again. */
function ownMarks(project: string, type: string): ReqifAttribute[] {
  return [ownIdColumn(project), ownVersionColumn(project)].map((name, i) => ({ id: `_${OWN}-own-${i + 1}-${type}`, name, kind: 'STRING', datatype: `_${OWN}-string`, multiValued: false }));
}

const DESIGN_NAMES = ['conditions', 'coverage %'] as const;

/** What says how a requirement is covered; imports leave it alone. */
function designAttributes(type: string): ReqifAttribute[] {
  return DESIGN_NAMES.map((name, i) => ({ id: `_${OWN}-design-${i + 1}-${type}`, name, kind: 'STRING', datatype: `_${OWN}-string`, multiValued: false }));
}

function isDesignAttribute({ id }: ReqifAttribute): boolean {
  return id.startsWith(`_${OWN}-design-`);
}

function designText({ design }: ExportedRequirement, name: string): string {
  if (design === null) return '';
  if (name === 'conditions') return design.conditions.map((c) => `${c.id} ${c.title}`).join('; ');
  const percent = percentDown(shownRatio(design.counts));
  return percent === null ? '' : String(percent);
}

/** Whether two spellings are one value of a closed set: `Critical` is read as `high`. */
function meansTheSame(field: FieldName, a: string, b: string): boolean {
  if (field === 'priority') return isSamePriority(a, b);
  const read = field === 'type' ? readType : field === 'risk' ? readRisk : () => null;
  return read(a) !== null && read(a) === read(b);
}

const ownAttributeId = (field: FieldName): string => `_${OWN}-${field.replace(/^own:/, 'field-').replaceAll(/[^A-Za-z0-9]/g, '-')}`;
const ownRelationType = (kind: string): string => `_${OWN}-relation-${kind.replaceAll(/[^A-Za-z0-9]/g, '-')}`;

/** The types of all sources, and Caderno's own for what came from elsewhere. */
function allTypes({ project, requirements, fields, sources, objects }: ReqifExport): ReqifTypes {
  const kept = [...sources.values()].map((s) => withoutOurs(s.types));
  const byId = <T extends { readonly id: string }>(lists: readonly (readonly T[])[]): T[] => [...new Map(lists.flat().map((t) => [t.id, t])).values()];
  const own = requirements.filter((r) => !objects.has(r.id));
  const added = ownFieldsOf(fields, 'requirement').map((field): readonly [FieldName, DatatypeKind, string] => [ownFieldName(field.id), 'STRING', ownColumnName(field, BASIS_COLUMNS)]);
  const taken = new Set(added.map(([, , name]) => ownQueryName(name)));
  const attributes = [...new Set(own.flatMap((r) => r.content.attributes.map((a) => a.id)))].filter((name) => !taken.has(ownQueryName(name))).map((name): readonly [FieldName, DatatypeKind, string] => [attributeField(name), 'STRING', name]);
  const relationNames = new Set(kept.flatMap((t) => t.specTypes.filter((s) => s.kind === 'SPEC-RELATION-TYPE').map((s) => s.name)));
  const newRelations = [...new Set(requirements.flatMap((r) => r.content.relations.map((x) => x.kind)))].filter((kind) => !relationNames.has(kind));
  const figures = requirements.some((r) => r.design !== null);
  const types: ReqifTypes = {
    header: { id: '', title: '', comment: '' },
    datatypes: byId([...kept.map((t) => t.datatypes), OWN_DATATYPES]),
    specTypes: byId([
      ...kept.map((t) => t.specTypes),
      [{ id: OWN_TYPE, name: 'Requirement', kind: 'SPEC-OBJECT-TYPE', attributes: [...OWN_FIELDS, ...added, ...attributes].map(ownAttribute) }],
      [{ id: `_${OWN}-specification-type`, name: 'Basis', kind: 'SPECIFICATION-TYPE', attributes: [] }],
      newRelations.map((kind) => ({ id: ownRelationType(kind), name: kind, kind: 'SPEC-RELATION-TYPE' as const, attributes: [] })),
    ]),
    specifications: byId([...kept.map((t) => t.specifications), [{ id: `_${OWN}-specification`, name: 'Basis', type: `_${OWN}-specification-type` }]]),
  };
  return { ...types, specTypes: types.specTypes.map((t) => (t.kind === 'SPEC-OBJECT-TYPE' ? { ...t, attributes: [...t.attributes, ...ownMarks(project, t.id), ...(figures ? designAttributes(t.id) : [])] } : t)) };
}

/** The types of a file that we wrote ourselves, without what is added to all of them anew. */
function withoutOurs(types: ReqifTypes): ReqifTypes {
  const isOurs = ({ id }: ReqifAttribute): boolean => id.startsWith(`_${OWN}-own-`) || id.startsWith(`_${OWN}-design-`);
  return { ...types, specTypes: types.specTypes.map((t) => ({ ...t, attributes: t.attributes.filter((a) => !isOurs(a)) })) };
}

const OWN_DATATYPES: readonly ReqifDatatype[] = [
  { id: `_${OWN}-string`, name: 'Text', kind: 'STRING', limits: { 'MAX-LENGTH': '200000' }, values: [] },
  { id: `_${OWN}-xhtml`, name: 'Formatted text', kind: 'XHTML', limits: {}, values: [] },
];

function ownAttribute([field, kind, name]: readonly [FieldName, DatatypeKind, string]): ReqifAttribute {
  return { id: ownAttributeId(field), name: attributeName(field) ?? name, kind, datatype: `_${OWN}-${kind === 'XHTML' ? 'xhtml' : 'string'}`, multiValued: false };
}
