import { parseArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { RISKS, type Risk } from '@caderno/core/basis';
import { STANDINGS, type Standing } from '@caderno/core/coverage';
import type { OwnField, OwnFieldId } from '@caderno/core/fields';
import { daysOf, isClosed, spanOf, type Asking, type HasValue, type IsValue, type NumberField, type OwnNode, type QueryNode, type TextField } from '@caderno/core/find';
import { likeText, wordsSql, type Bind } from './wordsSql.ts';

/** What an SQL condition on artefacts of one kind (alias `a`) is made for. */
export interface Asked {
  readonly kind: ArtefactKind;
  readonly asking: Asking;
  readonly parameter: Bind;
}

/** The SQL condition that means what a query means; never null. */
export function querySql(node: QueryNode, asked: Asked): string {
  switch (node.kind) {
    case 'all':
      return node.of.length === 0 ? 'true' : `(${node.of.map((part) => querySql(part, asked)).join(' AND ')})`;
    case 'any':
      return `(${node.of.map((part) => querySql(part, asked)).join(' OR ')})`;
    case 'not':
      return `NOT ${querySql(node.of, asked)}`;
    case 'words':
      return known(termOfWords(node.words, asked));
    case 'field':
      return known(FIELD_SQL[node.field](node.value, asked));
    case 'number':
      return known(`${NUMBER_SQL[node.field](asked)} ${node.is} ${asked.parameter(node.than)}::float8${node.field === 'coverage' ? ` * ${itemsSql(asked)}` : ''}`);
    case 'updated': {
      const { from, to } = spanOf(node.is, node.than, asked.asking.now);
      const bound = (sign: '>=' | '<', at: number | null): string[] => (at === null ? [] : [`date_trunc('second', a.updated_at) ${sign} ${asked.parameter(new Date(at).toISOString())}::timestamptz`]);
      return known([...bound('>=', from), ...bound('<', to)].join(' AND '));
    }
    case 'own':
      return known(ownSql(node, asked));
  }
}

function ownSql(node: OwnNode, { asking, parameter }: Asked): string {
  const { field } = node;
  if (node.asked === 'text' && field.type === 'longText') return ownTextSql(field.id, node.text, parameter);
  const value = `a.own->${parameter(field.id)}::text`;
  switch (node.asked) {
    case 'anything':
      return `${value} IS NOT NULL`;
    case 'text':
      return isClosed(field.type)
        ? `EXISTS (SELECT 1 ${shownSql(value, field, parameter)} WHERE lower(shown.text) = lower(${parameter(node.text)}))`
        : within(wholeSql(value, field, parameter), node.text, parameter);
    case 'number': {
      const text = wholeSql(value, field, parameter);
      return `CASE WHEN ${text} ~ '^[+-]?[0-9]{1,30}(\\.[0-9]{1,30})?$' THEN ${text}::float8 ${node.is} ${parameter(node.than)}::float8 END`;
    }
    case 'day': {
      const text = wholeSql(value, field, parameter);
      const { from, before } = daysOf(spanOf(node.is, node.than, asking.now));
      const bound = (sign: '>=' | '<', day: string | null): string[] => (day === null ? [] : [`${text} COLLATE "C" ${sign} ${parameter(day)}`]);
      return [`${text} ~ '^[0-9]{4}-[0-9]{2}-[0-9]{2}$'`, ...bound('>=', from), ...bound('<', before)].join(' AND ');
    }
  }
}

/** What people see of a value: a choice by its name. Rows of texts in their order. */
function shownSql(value: string, { choices }: OwnField, parameter: Bind): string {
  const names = parameter(JSON.stringify(Object.fromEntries(choices.map((c) => [c.id, c.name]))));
  return `FROM (SELECT coalesce(${names}::jsonb->>part.text, part.text) AS text, part.place FROM jsonb_array_elements_text(CASE jsonb_typeof(${value}) WHEN 'array' THEN ${value} ELSE jsonb_build_array(${value}) END) WITH ORDINALITY AS part(text, place)) AS shown`;
}

/** The same as one text. */
function wholeSql(value: string, field: OwnField, parameter: Bind): string {
  return `CASE WHEN ${value} IS NOT NULL THEN (SELECT string_agg(shown.text, ', ' ORDER BY shown.place) ${shownSql(value, field, parameter)}) END`;
}

/** Whether a long text of the project's own fields has words in it: heads hold only its beginning. */
export function ownTextSql(field: OwnFieldId, words: string, parameter: Bind): string {
  return `EXISTS (SELECT 1 FROM artefact_version v WHERE v.artefact_id = a.id AND v.version = a.head AND jsonb_exists(a.own, ${parameter(field)}) AND ${within(`v.content->'own'->>${parameter(field)}::text`, words, parameter)})`;
}

/** What is not there is not so: neither does a query that asks for it hold, nor does its opposite fail. */
function known(sql: string): string {
  return `coalesce(${sql}, false)`;
}

function termOfWords(words: string, asked: Asked): string {
  const id = parseArtefactId(words.toUpperCase());
  if (id === null) return wordsSql(words, asked.parameter);
  if (id.kind === asked.kind) return `a.number = ${asked.parameter(id.number)}`;
  const links = ['covers', 'about', 'requirements'].map((fact) => `jsonb_exists(a.facts->'${fact}', ${asked.parameter(words.toUpperCase())})`);
  return [...links.map(known), ...(id.kind === 'requirement' ? [throughConditions(words, asked)] : [])].join(' OR ');
}

/** Whether a case covers a condition of a requirement. */
function throughConditions(requirement: string, { kind, parameter }: Asked): string {
  if (kind !== 'case') return 'false';
  return known(`jsonb_exists_any(a.facts->'covers', ARRAY(SELECT 'K-' || k.number FROM artefact k WHERE k.project_id = $1 AND k.kind = 'condition' AND k.deleted_at IS NULL AND jsonb_exists(k.facts->'requirements', ${parameter(requirement.toUpperCase())})))`);
}

/** Whether a condition hangs on a requirement (alias `r`) that an SQL condition holds for. */
function hangsOn(where: string): string {
  return known(`jsonb_exists_any(a.facts->'requirements', ARRAY(SELECT 'R-' || r.number FROM artefact r WHERE r.project_id = $1 AND r.kind = 'requirement' AND r.deleted_at IS NULL AND ${where}))`);
}

/** Of a condition without a risk of its own the highest of its requirements. */
function riskSql(value: string, { kind, parameter }: Asked): string {
  if (kind !== 'condition') return `a.risk = ${parameter(value)}`;
  const higher = RISKS.slice(0, RISKS.findIndex((risk) => risk === value));
  const ofRequirements = (risk: Risk | string): string => hangsOn(`r.risk = ${parameter(risk)}`);
  return `CASE WHEN a.risk IS NULL THEN ${[ofRequirements(value), ...higher.map((risk) => `NOT ${ofRequirements(risk)}`)].join(' AND ')} ELSE a.risk = ${parameter(value)} END`;
}

const same = (column: string, value: string, parameter: Bind): string => `lower(${column}) = lower(${parameter(value)})`;
const within = (column: string, part: string, parameter: Bind): string => `${column} ILIKE ${parameter(`%${likeText(part)}%`)}`;
const among = (list: string, value: string, parameter: Bind): string => `EXISTS (SELECT 1 FROM jsonb_array_elements_text(${list}) member WHERE lower(member) = lower(${parameter(value)}))`;
const compact = (text: string): string => text.replaceAll(/\s/g, '');

const FIELD_SQL: Record<TextField, (value: string, asked: Asked) => string> = {
  state: (value, { parameter }) => (value === 'any' ? 'true' : same('a.state', compact(value), parameter)),
  module: (value, { kind, parameter }) => (kind === 'condition' ? hangsOn(within('r.module', value, parameter)) : within('a.module', value, parameter)),
  owner: (value, { parameter }) => within('a.owner', value, parameter),
  author: (value, { parameter }) => `EXISTS (SELECT 1 FROM person WHERE person.id = a.author_id AND ${within('person.name', value, parameter)})`,
  tag: (value, { parameter }) => `EXISTS (SELECT 1 FROM unnest(a.tags) tag WHERE ${same('tag', value, parameter)} OR ${same('tag', `@${value}`, parameter)})`,
  priority: (value, { parameter }) => `lower(a.priority) = lower(${parameter(value)})`,
  risk: riskSql,
  covers: (value, { parameter }) => `jsonb_exists(a.facts->'covers', upper(${parameter(value)}))`,
  requirement: (value, asked) => `${known(`jsonb_exists(a.facts->'requirements', upper(${asked.parameter(value)}))`)} OR ${known(`jsonb_exists(a.facts->'about', upper(${asked.parameter(value)}))`)} OR ${throughConditions(value, asked)}`,
  id: (value, { parameter }) => `a.number = ${parameter(parseArtefactId(value.toUpperCase())?.number ?? 0)} AND a.kind = ${parameter(parseArtefactId(value.toUpperCase())?.kind ?? '')}`,
  kind: (value, { parameter }) => same(`a.facts->>'kind'`, value, parameter),
  execution: (value, { parameter }) => same(`a.facts->>'execution'`, compact(value), parameter),
  technique: (value, { parameter }) => same(`a.facts->>'model'`, compact(value), parameter),
  polarity: (value, { parameter }) => same(`a.facts->>'polarity'`, value, parameter),
  type: (value, { parameter }) => same(`a.facts->>'type'`, compact(value), parameter),
  status: (value, { parameter }) => same(`a.facts->>'status'`, value, parameter),
  standing: (value, asked) => `${standingSql(STANDINGS.filter((s) => s === value), asked)} > 0`,
  depth: (value, { parameter }) => among(`a.facts->'depths'`, value, parameter),
  has: (value, asked) => HAS_SQL[value as HasValue](asked),
  is: (value, asked) => IS_SQL[value as IsValue](asked),
};

const HAS_SQL: Record<HasValue, (asked: Asked) => string> = {
  rows: () => `(a.facts->>'rows')::int > 0`,
  steps: () => `(a.facts->>'steps')::int > 0`,
  expected: () => `(a.facts->>'expected')::int > 0`,
  covers: () => `jsonb_array_length(a.facts->'covers') > 0`,
  tags: () => `cardinality(a.tags) > 0`,
  estimate: () => `a.facts->>'estimate' IS NOT NULL`,
  owner: () => `a.owner <> ''`,
  module: ({ kind }) => (kind === 'condition' ? hangsOn(`r.module <> ''`) : `a.module <> ''`),
  requirement: ({ kind }) =>
    kind === 'case'
      ? `jsonb_exists_any(a.facts->'covers', ARRAY(SELECT 'K-' || k.number FROM artefact k WHERE k.project_id = $1 AND k.kind = 'condition' AND k.deleted_at IS NULL AND jsonb_array_length(k.facts->'requirements') > 0))`
      : `jsonb_array_length(a.facts->'requirements') > 0`,
  dataSet: () => `a.facts->>'dataSet' IS NOT NULL`,
  problems: () => `(a.facts->>'problems')::int > 0`,
  agreed: () => 'a.agreed_version IS NOT NULL',
};

const IS_SQL: Record<IsValue, (asked: Asked) => string> = {
  mine: ({ asking, parameter }) => (asking.name === '' ? 'false' : `a.owner = ${parameter(asking.name)}`),
  broken: () => 'a.broken',
  showing: ({ kind }) => (kind === 'case' ? `EXISTS (SELECT 1 FROM coverage_row c WHERE c.project_id = $1 AND c.id = 'C-' || a.number AND c.row->'shows' = 'true')` : 'false'),
  newer: () => '(a.agreed_version IS NOT NULL AND a.agreed_version < a.meaning_since)',
};

/** The left side of a comparison; for a share of coverage what is shown times a hundred, for the right side is so many items. */
const NUMBER_SQL: Record<NumberField, (asked: Asked) => string> = {
  minutes: () => `(a.facts->>'estimate')::float8`,
  steps: () => `(a.facts->>'steps')::int`,
  rows: () => `(a.facts->>'rows')::int`,
  scenarios: () => `jsonb_array_length(a.facts->'scenarios')`,
  problems: () => `(a.facts->>'problems')::int`,
  version: () => 'a.head',
  coverage: (asked) => `100 * ${standingSql(['shown'], asked)}`,
};

/** Items to show; null where there are none. */
function itemsSql(asked: Asked): string {
  return `nullif(${standingSql(STANDINGS.filter((s) => s !== 'leftOut'), asked)}, 0)`;
}

/** How many items of a condition, or of all conditions of a counted requirement, have one of some standings: digits of its coverage row. */
function standingSql(standings: readonly Standing[], { kind }: Asked): string {
  const digits = standings.map((standing) => STANDINGS.indexOf(standing)).join('');
  const count = `length(regexp_replace(c.row->>'standings', '[^${digits}]', '', 'g'))`;
  if (kind === 'condition') return `(SELECT ${count} FROM coverage_row c WHERE c.project_id = $1 AND c.id = 'K-' || a.number)`;
  if (kind !== 'requirement') return 'NULL::int';
  return `(CASE WHEN a.state <> 'withdrawn' AND a.facts->>'type' IS DISTINCT FROM 'heading' THEN (
    SELECT sum(${count}) FROM artefact k JOIN coverage_row c ON c.project_id = $1 AND c.id = 'K-' || k.number
    WHERE k.project_id = $1 AND k.kind = 'condition' AND k.deleted_at IS NULL AND jsonb_exists(k.facts->'requirements', 'R-' || a.number)) END)`;
}
