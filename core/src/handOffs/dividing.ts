import { lineKey, type HandOffLine } from './handOff.ts';

/** How the work is given out: so that all have about the same to do, each module to one person, or to the owners of the cases. */
export const DIVIDINGS = ['evenly', 'modules', 'owners'] as const;
/** See {@link DIVIDINGS}. */
export type Dividing = (typeof DIVIDINGS)[number];

type Divided = Pick<HandOffLine, 'of' | 'configuration' | 'module' | 'owner' | 'execution' | 'instances' | 'minutes'>;

/** What takes no time that anybody has said counts as this, in minutes, where nothing has any. */
const UNKNOWN_MINUTES = 1;

/**
 * Who does each line: whom somebody was `chosen` for by hand, then by the way of dividing. Units of work are given out largest first,
 * each to whoever has least so far (Graham's LPT rule, 1969), so that nobody has more than the mean and one unit. What is automated is nobody's,
 * and so is everything where there are no people. What nobody has estimated counts as the mean of what was.
 */
export function divide(lines: readonly Divided[], people: readonly string[], way: Dividing, chosen: ReadonlyMap<string, string>): string[] {
  const loads = new Map(people.map((person) => [person, 0]));
  const usual = usualMinutes(lines);
  const workOf = ({ instances, minutes }: Divided): number => instances * (minutes ?? usual);
  const given: (string | null)[] = lines.map((line) => {
    const person = fixedPerson(line, loads, way, chosen);
    if (person !== null && loads.has(person)) loads.set(person, (loads.get(person) ?? 0) + workOf(line));
    return person;
  });
  const units = new Map<string, { readonly places: number[]; work: number }>();
  for (const [place, line] of lines.entries()) {
    if (given[place] !== null) continue;
    const name = way === 'modules' ? line.module : String(place);
    const unit = units.get(name) ?? { places: [], work: 0 };
    unit.places.push(place);
    unit.work += workOf(line);
    units.set(name, unit);
  }
  for (const { places, work } of [...units.values()].toSorted((a, b) => b.work - a.work)) {
    const person = leastLoaded(loads);
    loads.set(person, (loads.get(person) ?? 0) + work);
    for (const place of places) given[place] = person;
  }
  return given.map((person) => person ?? '');
}

/** Null: whoever has least to do. */
function fixedPerson(line: Divided, people: ReadonlyMap<string, unknown>, way: Dividing, chosen: ReadonlyMap<string, string>): string | null {
  const byHand = chosen.get(lineKey(line));
  if (byHand !== undefined) return byHand;
  if (line.execution === 'automated' || people.size === 0) return '';
  return way === 'owners' && people.has(line.owner) ? line.owner : null;
}

/** Of several the one named first. */
function leastLoaded(loads: ReadonlyMap<string, number>): string {
  let [least, load] = ['', Infinity];
  for (const [person, own] of loads) if (own < load) [least, load] = [person, own];
  return least;
}

function usualMinutes(lines: readonly Divided[]): number {
  const known = lines.flatMap(({ minutes }) => (minutes === null ? [] : [minutes]));
  return known.length === 0 ? UNKNOWN_MINUTES : known.reduce((sum, minutes) => sum + minutes, 0) / known.length;
}
