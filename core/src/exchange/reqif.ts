import { isZip, openArchive } from './archive.ts';
import { decodeText } from './decodeText.ts';
import { FILE_LIMITS } from './limits.ts';
import { at, error, warning, type FileProblem } from './problem.ts';
import { DATATYPE_KINDS, SPEC_TYPE_KINDS, type ReqifAttribute, type ReqifDatatype, type ReqifObject, type ReqifSpecType, type ReqifTypes } from './reqifTypes.ts';
import type { ReadingOptions, SourceDocument, SourceRecord } from './sourceDocument.ts';
import { markdownOfXhtml } from './xhtml.ts';
import { childOf, listOf, readXml, textOf, type XmlElement } from './xmlTree.ts';

/** Columns beside the attributes; no attribute has these names. */
export const REQIF_TYPE_COLUMN = 'ReqIF type';
export const REQIF_OBJECT_COLUMN = 'ReqIF object';

/** A ReqIF 1.2 document, bare or in an archive. Of several in an archive the first is read. */
export async function readReqif(bytes: Uint8Array, options: ReadingOptions): Promise<SourceDocument> {
  if (!isZip(bytes)) return reqifDocument('reqif', bytes, options, []);
  const archive = await openArchive(bytes, () => true);
  if (archive.kind === 'refused') return refused('reqifz', archive.problem);
  const [first] = [...archive.files].filter(([path]) => path.toLowerCase().endsWith('.reqif')).sort(([a], [b]) => (a < b ? -1 : 1));
  if (first === undefined) return refused('reqifz', error({ code: 'archive_without', what: '.reqif' }));
  const left = [...archive.files.keys()].filter((path) => path !== first[0]).map((path) => warning({ code: 'attachment_left', path: path.slice(0, 200) }));
  return reqifDocument('reqifz', first[1], options, left);
}

function refused(format: 'reqif' | 'reqifz', problem: FileProblem, more: readonly FileProblem[] = []): SourceDocument {
  return { format, columns: [], records: [], sheets: [], problems: [...more, problem], types: null };
}

function reqifDocument(format: 'reqif' | 'reqifz', bytes: Uint8Array, options: ReadingOptions, more: readonly FileProblem[]): SourceDocument {
  const { text, problems } = decodeText(bytes, options.encoding);
  const xml = readXml(text);
  if (xml.kind === 'refused') return refused(format, xml.problem, problems);
  const content = childOf(childOf(xml.root, 'CORE-CONTENT'), 'REQ-IF-CONTENT');
  if (xml.root.name !== 'REQ-IF' || content === undefined) return refused(format, error({ code: 'not_reqif' }, at(xml.root.line)), problems);
  const found: FileProblem[] = [...problems, ...more];
  const types = readTypes(xml.root, content);
  const objects = listOf(content, 'SPEC-OBJECTS');
  if (objects.length > FILE_LIMITS.records) return refused(format, error({ code: 'too_many_records', limit: FILE_LIMITS.records }), found);
  const attributes = columnAttributes(types);
  const columns = [...attributes, REQIF_TYPE_COLUMN, REQIF_OBJECT_COLUMN];
  const places = placesOf(content, found);
  const relations = relationsOf(content, types, found);
  const byId = new Map(objects.map((object) => [idOf(object), object]));
  const reader = new ValueReader(types, found);
  const ofType = new Map(types.specTypes.map((t) => [t.id, new Set(t.attributes.map((a) => a.name))]));
  const ordered = [...places.keys()].flatMap((id) => byId.get(id) ?? []);
  const unplaced = objects.filter((object) => !places.has(idOf(object)));
  for (const object of unplaced) found.push(warning({ code: 'object_not_placed', id: idOf(object) }, at(object.line)));
  for (const id of places.keys()) if (!byId.has(id)) found.push(error({ code: 'reference_unknown', what: 'SPEC-OBJECT', id }, at(places.get(id)?.line ?? 1)));
  const doubled = objects.filter((object, i) => byId.get(idOf(object)) !== objects[i]);
  const records = [...ordered, ...unplaced.filter((o) => byId.get(idOf(o)) === o), ...doubled].map((object): SourceRecord => {
    const id = idOf(object);
    const place = places.get(id);
    const facts: ReqifObject = { type: typeRef(object), hierarchyId: place?.hierarchyId ?? '', specification: place?.specification ?? '' };
    const values = reader.valuesOf(object);
    return {
      line: object.line,
      cells: [...attributes.map((name) => values.get(name) ?? (ofType.get(facts.type)?.has(name) === true ? '' : null)), types.specTypes.find((t) => t.id === facts.type)?.name ?? '', JSON.stringify(facts)],
      place: { id, parent: place?.parent ?? null },
      relations: relations.get(id) ?? [],
    };
  });
  if (records.length === 0) found.push(error({ code: 'file_empty' }));
  return { format, columns, records, sheets: [], problems: found, types };
}

function idOf(element: XmlElement): string {
  return element.attributes.IDENTIFIER ?? '';
}

function nameOf(element: XmlElement): string {
  return (element.attributes['LONG-NAME'] ?? '').trim() || idOf(element);
}

/** The text of the one reference in a wrapping element: `<TYPE><SPEC-OBJECT-TYPE-REF>…`. */
function refIn(element: XmlElement, wrapper: string): string {
  return textOf(listOf(element, wrapper)[0]).trim();
}

function typeRef(element: XmlElement): string {
  return refIn(element, 'TYPE');
}

function readTypes(root: XmlElement, content: XmlElement): ReqifTypes {
  const header = childOf(childOf(root, 'THE-HEADER'), 'REQ-IF-HEADER');
  return {
    header: { id: header === undefined ? '' : idOf(header), title: textOf(childOf(header, 'TITLE')).trim(), comment: textOf(childOf(header, 'COMMENT')).trim() },
    datatypes: listOf(content, 'DATATYPES').flatMap(readDatatype),
    specTypes: listOf(content, 'SPEC-TYPES').flatMap(readSpecType),
    specifications: listOf(content, 'SPECIFICATIONS').map((s) => ({ id: idOf(s), name: nameOf(s), type: typeRef(s) })),
  };
}

const LIMITS = ['MAX-LENGTH', 'MIN', 'MAX', 'ACCURACY'] as const;

function readDatatype(element: XmlElement): ReqifDatatype[] {
  const kind = DATATYPE_KINDS.find((k) => element.name === `DATATYPE-DEFINITION-${k}`);
  if (kind === undefined) return [];
  const limits = Object.fromEntries(LIMITS.flatMap((name) => (element.attributes[name] === undefined ? [] : [[name, element.attributes[name]]])));
  const values = listOf(element, 'SPECIFIED-VALUES').map((value) => {
    const embedded = listOf(value, 'PROPERTIES')[0]?.attributes ?? {};
    return { id: idOf(value), name: nameOf(value), key: embedded.KEY ?? '', other: embedded['OTHER-CONTENT'] ?? '' };
  });
  return [{ id: idOf(element), name: nameOf(element), kind, limits, values }];
}

function readSpecType(element: XmlElement): ReqifSpecType[] {
  const kind = SPEC_TYPE_KINDS.find((k) => element.name === k);
  return kind === undefined ? [] : [{ id: idOf(element), name: nameOf(element), kind, attributes: listOf(element, 'SPEC-ATTRIBUTES').flatMap(readAttribute) }];
}

function readAttribute(element: XmlElement): ReqifAttribute[] {
  const kind = DATATYPE_KINDS.find((k) => element.name === `ATTRIBUTE-DEFINITION-${k}`);
  return kind === undefined ? [] : [{ id: idOf(element), name: nameOf(element), kind, datatype: refIn(element, 'TYPE'), multiValued: element.attributes['MULTI-VALUED'] === 'true' }];
}

/** Names of the attributes of all object types, each once: attributes of one name are one column. */
function columnAttributes(types: ReqifTypes): string[] {
  return [...new Set(types.specTypes.filter((t) => t.kind === 'SPEC-OBJECT-TYPE').flatMap((t) => t.attributes.map((a) => a.name)))];
}

interface Place {
  readonly parent: string | null;
  readonly hierarchyId: string;
  readonly specification: string;
  readonly line: number;
}

/** Where each object stands, in reading order. One that stands in several places keeps the first. */
function placesOf(content: XmlElement, problems: FileProblem[]): Map<string, Place> {
  const places = new Map<string, Place>();
  for (const specification of listOf(content, 'SPECIFICATIONS')) {
    const visit = (hierarchy: XmlElement, parent: string | null): void => {
      const object = refIn(hierarchy, 'OBJECT');
      if (places.has(object)) problems.push(warning({ code: 'id_doubled', id: object, first: places.get(object)?.line ?? 1 }, at(hierarchy.line)));
      else places.set(object, { parent, hierarchyId: idOf(hierarchy), specification: idOf(specification), line: hierarchy.line });
      for (const child of listOf(hierarchy, 'CHILDREN')) visit(child, object);
    };
    for (const child of listOf(specification, 'CHILDREN')) visit(child, null);
  }
  return places;
}

function relationsOf(content: XmlElement, types: ReqifTypes, problems: FileProblem[]): Map<string, SourceRecord['relations'][number][]> {
  const known = new Set(listOf(content, 'SPEC-OBJECTS').map(idOf));
  const names = new Map(types.specTypes.map((t) => [t.id, t.name]));
  const bySource = new Map<string, SourceRecord['relations'][number][]>();
  for (const relation of listOf(content, 'SPEC-RELATIONS')) {
    const [source, target] = [refIn(relation, 'SOURCE'), refIn(relation, 'TARGET')];
    const missing = [source, target].find((id) => !known.has(id));
    if (missing !== undefined) {
      problems.push(warning({ code: 'reference_unknown', what: 'SPEC-OBJECT', id: missing }, at(relation.line)));
      continue;
    }
    const relations = bySource.get(source) ?? [];
    if (relations.length === 0) bySource.set(source, relations);
    relations.push({ id: idOf(relation), kind: names.get(typeRef(relation)) ?? 'relates to', to: target });
  }
  return bySource;
}

/** Reads attribute values by the definitions they name. */
class ValueReader {
  readonly #attributes: ReadonlyMap<string, ReqifAttribute>;
  readonly #enumeration: ReadonlyMap<string, string>;
  readonly #problems: FileProblem[];

  constructor(types: ReqifTypes, problems: FileProblem[]) {
    this.#attributes = new Map(types.specTypes.flatMap((t) => t.attributes).map((a) => [a.id, a]));
    this.#enumeration = new Map(types.datatypes.flatMap((d) => d.values).map((v) => [v.id, v.name]));
    this.#problems = problems;
  }

  valuesOf(object: XmlElement): Map<string, string> {
    const values = new Map<string, string>();
    for (const value of listOf(object, 'VALUES')) {
      const definition = refIn(value, 'DEFINITION');
      const attribute = this.#attributes.get(definition);
      if (attribute === undefined) this.#problems.push(warning({ code: 'reference_unknown', what: 'ATTRIBUTE-DEFINITION', id: definition }, at(value.line)));
      else values.set(attribute.name, this.#text(value, attribute));
    }
    return values;
  }

  #text(value: XmlElement, { kind }: ReqifAttribute): string {
    if (kind === 'XHTML') {
      const xhtml = childOf(value, 'THE-VALUE');
      return xhtml === undefined ? '' : markdownOfXhtml(xhtml);
    }
    if (kind !== 'ENUMERATION') return value.attributes['THE-VALUE'] ?? '';
    return listOf(value, 'VALUES')
      .map((ref) => {
        const id = textOf(ref).trim();
        const name = this.#enumeration.get(id);
        if (name === undefined) this.#problems.push(warning({ code: 'reference_unknown', what: 'ENUM-VALUE', id }, at(ref.line)));
        return name ?? id;
      })
      .join('; ');
  }
}

/** Whether elements of a text name ReqIF's root. */
export function looksLikeReqif(text: string): boolean {
  return /<(?:[\w-]+:)?REQ-IF[\s>]/.test(text.slice(0, 4_000));
}

