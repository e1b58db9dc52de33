import type { Row, Step } from '../cases/index.ts';
import type { OwnFieldId } from '../fields/index.ts';
import type { ContentOfKind, KindAndContent } from '../kinds/index.ts';

/** The texts that are looked through, as people choose among them. */
export const TEXT_PARTS = ['title', 'text', 'steps', 'expected', 'data', 'fields'] as const;
export type TextPart = (typeof TEXT_PARTS)[number];

/** A text of an artefact: where it stands (names and ids joined by `/`, as in a conflict), what it belongs to, and what it says. */
export interface TextPlace {
  readonly path: string;
  readonly part: TextPart;
  readonly text: string;
}

/** The fields of the project's own that are looked through, too. */
export type OwnTexts = ReadonlySet<OwnFieldId>;

export const NO_OWN_TEXTS: OwnTexts = new Set();

/** Makes another text of one. */
type Rewrite = (place: TextPlace) => string;

/** All texts of an artefact in which something can be replaced, in the order of its page, then those of the project's own fields. Empty ones are none. */
export function textPlaces(value: KindAndContent, own = NO_OWN_TEXTS): TextPlace[] {
  const places: TextPlace[] = [];
  withTexts(value, (place) => {
    if (place.text !== '') places.push(place);
    return place.text;
  }, own);
  return places;
}

/** The artefact with its texts rewritten; the very same when none is another. */
export function withTexts(value: KindAndContent, rewrite: Rewrite, own: OwnTexts): KindAndContent {
  const named = withNamedTexts(value, rewrite);
  const there = Object.keys(named.content.own).filter((id) => own.has(id as OwnFieldId));
  const values = fields(named.content.own, there.map((id) => [id, 'fields' as const]), rewrite, 'own/');
  return values === named.content.own ? named : ({ kind: named.kind, content: { ...named.content, own: values } } as KindAndContent);
}

// Made once: a search goes through some hundred thousand texts.
const TITLE: readonly (readonly ['title', TextPart])[] = [['title', 'title']];
const REQUIREMENT_TEXTS: TextFields<ContentOfKind['requirement']> = [...TITLE, ['text', 'text']];
const QUESTION_TEXTS: TextFields<ContentOfKind['question']> = [...TITLE, ['text', 'text'], ['answer', 'text']];
const CASE_TEXTS: TextFields<ContentOfKind['case']> = [...TITLE, ['objective', 'text'], ['areas', 'text'], ['ideas', 'text'], ['preconditions', 'text']];
const PURPOSE_TEXTS: readonly (readonly ['title' | 'purpose', TextPart])[] = [...TITLE, ['purpose', 'text']];
const STEP_TEXTS: readonly (readonly ['action' | 'expected', TextPart])[] = [['action', 'steps'], ['expected', 'expected']];
const ROW_TEXTS: TextFields<Row> = [['name', 'data'], ['description', 'data']];

function withNamedTexts(value: KindAndContent, rewrite: Rewrite): KindAndContent {
  switch (value.kind) {
    case 'requirement':
      return changed(value, fields(value.content, REQUIREMENT_TEXTS, rewrite));
    case 'condition':
      return changed(value, fields(value.content, TITLE, rewrite));
    case 'question':
      return changed(value, fields(value.content, QUESTION_TEXTS, rewrite));
    case 'case': {
      const content = fields(value.content, CASE_TEXTS, rewrite);
      const steps = each('steps', content.steps, (step, path) => stepTexts(step, path, rewrite));
      const rows = each('rows', content.rows, (row, path) => rowTexts(row, path, rewrite));
      return changed(value, steps === content.steps && rows === content.rows ? content : { ...content, steps, rows });
    }
    case 'shared': {
      const content = fields(value.content, PURPOSE_TEXTS, rewrite);
      const steps = each('steps', content.steps, (step, path) => stepTexts(step, path, rewrite));
      return changed(value, steps === content.steps ? content : { ...content, steps });
    }
    case 'dataSet': {
      const content = fields(value.content, PURPOSE_TEXTS, rewrite);
      const rows = each('rows', content.rows, (row, path) => rowTexts(row, path, rewrite));
      return changed(value, rows === content.rows ? content : { ...content, rows });
    }
    case 'suite': {
      const content = fields(value.content, PURPOSE_TEXTS, rewrite);
      const entries = each('entries', content.entries, (entry, path) => (entry.kind === 'part' ? fields(entry, TITLE, rewrite, `${path}/`) : entry));
      return changed(value, entries === content.entries ? content : { ...content, entries });
    }
    // The title of a feature stands in its first lines.
    case 'feature': {
      const parts = each('parts', value.content.parts, (part, path) => {
        const lines = each(`${path}/lines`, part.lines, (line, at) => fields(line, [['text', 'steps']], rewrite, `${at}/`));
        return lines === part.lines ? part : { ...part, lines };
      });
      return changed(value, parts === value.content.parts ? value.content : { ...value.content, parts });
    }
  }
}

function changed<V extends KindAndContent>(value: V, content: V['content']): KindAndContent {
  return content === value.content ? value : ({ kind: value.kind, content } as KindAndContent);
}

/** Named fields that hold a text, with the part they belong to. */
type TextFields<C> = readonly (readonly [keyof C & string, TextPart])[];

function fields<C extends object>(content: C, parts: TextFields<C>, rewrite: Rewrite, above = ''): C {
  let next = content;
  for (const [name, part] of parts) {
    const text = content[name];
    if (typeof text !== 'string') continue;
    const made = rewrite({ path: above + name, part, text });
    if (made !== text) next = { ...next, [name]: made };
  }
  return next;
}

function stepTexts(step: Step, path: string, rewrite: Rewrite): Step {
  if (step.kind === 'step') return fields(step, STEP_TEXTS, rewrite, `${path}/`);
  const given = each(`${path}/arguments`, step.arguments, (argument, at) => fields(argument, [['value', 'data']], rewrite, `${at}/`));
  return given === step.arguments ? step : { ...step, arguments: given };
}

function rowTexts(row: Row, path: string, rewrite: Rewrite): Row {
  const named = fields(row, ROW_TEXTS, rewrite, `${path}/`);
  const cells = fields(named.cells, Object.keys(named.cells).map((id) => [id, 'data' as const]), rewrite, `${path}/cells/`);
  return cells === named.cells ? named : { ...named, cells };
}

function each<E extends { readonly id: string }>(name: string, list: readonly E[], rewrite: (element: E, path: string) => E): readonly E[] {
  let other = false;
  const made = list.map((element) => {
    const next = rewrite(element, `${name}/${element.id}`);
    if (next !== element) other = true;
    return next;
  });
  return other ? made : list;
}
