/** A value as JSON has it. */
type Json = null | boolean | number | string | readonly Json[] | { readonly [name: string]: Json };

const ALWAYS: readonly Json[] = [null, true, -1, '', 'K-1', [], {}, [[[[[[]]]]]]];
/** Where the same type is expected; elsewhere one of a type stands for all of it, as it is refused for its type. */
const NUMBERS: readonly Json[] = [0.5, 2 ** 31, 2 ** 53];
const STRINGS: readonly Json[] = ['a\0b', '\ud800', 'x'.repeat(30_000), 'constructor', '[a-y]{0,1000}'];

function hostileInPlaceOf(value: Json): readonly Json[] {
  // What is null may be anything else as well.
  return [...ALWAYS, ...(typeof value === 'number' || value === null ? NUMBERS : []), ...(typeof value === 'string' || value === null ? STRINGS : [])];
}

/**
 * Everything that differs from a body in one place: each value replaced by hostile ones, each member left out, a
 * strange one added, each element doubled. The place stands beside it.
 */
export function* hostileBodies(body: Json): Generator<readonly [place: string, body: Json]> {
  for (const [place, inner, change] of places(body, '')) {
    for (const value of hostileInPlaceOf(inner)) yield [`${place} = ${JSON.stringify(value).slice(0, 40)}`, change(() => value)];
    yield [`${place} gone`, change(() => undefined)];
    yield [`${place} doubled`, change((v) => (Array.isArray(v) ? [...v, ...v] : [v as Json, v as Json]))];
    yield [`${place} with more`, change((v) => (typeof v === 'object' && v !== null && !Array.isArray(v) ? { ...v, surplus: 1 } : (v as Json)))];
  }
}

type Change = (make: (value: Json) => Json | undefined) => Json;

function* places(value: Json, path: string): Generator<readonly [string, Json, Change]> {
  yield [path === '' ? '.' : path, value, (make) => make(value) ?? null];
  if (typeof value !== 'object' || value === null) return;
  // Of a list the first elements stand for all.
  const members: [string, Json][] = Array.isArray(value) ? value.slice(0, 2).map((v, i): [string, Json] => [String(i), v as Json]) : Object.entries(value);
  for (const [name, inner] of members) {
    for (const [place, at, change] of places(inner, `${path}.${name}`)) {
      yield [place, at, (make) => withMember(value, name, place === `${path}.${name}` ? make(inner) : change(make))];
    }
  }
}

function withMember(value: Json, name: string, next: Json | undefined): Json {
  if (Array.isArray(value)) return value.flatMap((v: Json, i) => (String(i) !== name ? [v] : next === undefined ? [] : [next]));
  const entries = Object.entries(value as object) as [string, Json][];
  return Object.fromEntries(entries.flatMap(([n, v]) => (n !== name ? [[n, v]] : next === undefined ? [] : [[n, next]])));
}
