/** Plain content as stored: what canonical text, difference and merge work on. */
export type Json = null | boolean | number | string | readonly Json[] | JsonRecord;
export interface JsonRecord {
  readonly [name: string]: Json;
}
/** An element of a list whose elements are told apart by `id` rather than by place. */
export interface JsonElement extends JsonRecord {
  readonly id: string;
}

/** A content as JSON. Contents are plain by construction; their types just do not say so. */
export function asJson(content: unknown): Json {
  return content as Json;
}

export function isRecord(value: Json | undefined): value is JsonRecord {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Whether a value is a list whose elements all have an `id`, each once. An empty list is one. */
export function isElementList(value: Json | undefined): value is readonly JsonElement[] {
  if (!Array.isArray(value)) return false;
  const known = elementLists.get(value);
  if (known !== undefined) return known;
  const ids = new Set<string>();
  for (const e of value as readonly Json[]) if (isRecord(e) && typeof e.id === 'string') ids.add(e.id);
  const isList = ids.size === value.length;
  elementLists.set(value, isList);
  return isList;
}

/** Contents never change: what a list is found to be it stays. */
const elementLists = new WeakMap<readonly Json[], boolean>();

/** The same text for equal content, whatever the order of its names: what is hashed and compared. A name without a value is as good as none. */
export function canonicalText(value: Json): string {
  if (Array.isArray(value)) return `[${(value as readonly Json[]).map(canonicalText).join(',')}]`;
  if (!isRecord(value)) return JSON.stringify(value);
  let fields = '';
  for (const name of named(value).sort()) fields += `${fields === '' ? '' : ','}${JSON.stringify(name)}:${canonicalText(value[name] ?? null)}`;
  return `{${fields}}`;
}

/** Whether two contents have the same {@link canonicalText}, found without writing it. */
export function sameJson(a: Json, b: Json): boolean {
  if (a === b) return true;
  if (Array.isArray(a)) return Array.isArray(b) && a.length === b.length && a.every((value, i) => sameJson(value as Json, (b as readonly Json[])[i] ?? null));
  if (!isRecord(a) || !isRecord(b)) return false;
  const names = named(a);
  return names.length === named(b).length && names.every((name) => b[name] !== undefined && sameJson(a[name] ?? null, b[name]));
}

function named(record: JsonRecord): string[] {
  return Object.keys(record).filter((name) => record[name] !== undefined);
}
