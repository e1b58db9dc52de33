import type { RequirementContent } from '../basis/index.ts';
import { ownFieldsOf, ownText, withOwnValue, writeOwn, type OwnField, type OwnFieldId } from '../fields/index.ts';
import { readRisk, readType, writtenType } from './vocabulary.ts';

/** The fields of a requirement that files carry, each written as text. */
export const FIELDS = ['title', 'text', 'type', 'module', 'risk', 'likelihood', 'impact', 'priority', 'source', 'link'] as const;
export type PlainField = (typeof FIELDS)[number];
export type FieldName = PlainField | `attribute:${string}` | OwnFieldName;
/** A field of the project's own, by its id. */
export type OwnFieldName = `own:${string}`;

/** Values by field; a field that is not there is not spoken of. */
export type FieldValues = Readonly<Partial<Record<FieldName, string>>>;

export const attributeField = (name: string): FieldName => `attribute:${name}`;

export function attributeName(field: FieldName): string | null {
  return field.startsWith('attribute:') ? field.slice('attribute:'.length) : null;
}

export const ownFieldName = (id: OwnFieldId): OwnFieldName => `own:${id}`;

/** The field of the project's own that is meant; null: none, or one that requirements have no more. */
export function ownFieldNamed(field: string, fields: readonly OwnField[]): OwnField | null {
  return ownFieldsOf(fields, 'requirement').find(({ id }) => ownFieldName(id) === field) ?? null;
}

/** All fields of a requirement that files carry. */
export function fieldNames({ attributes }: Pick<RequirementContent, 'attributes'>, fields: readonly OwnField[]): FieldName[] {
  return [...FIELDS, ...ownFieldsOf(fields, 'requirement').map(({ id }) => ownFieldName(id)), ...attributes.map((a) => attributeField(a.id))];
}

/** A field as files write it. `fields`: the project's own. */
export function fieldText(content: RequirementContent, field: FieldName, fields: readonly OwnField[]): string {
  if (field.startsWith('own:')) {
    const own = ownFieldNamed(field, fields);
    const value = own === null ? undefined : content.own[own.id];
    return own === null || value === undefined ? '' : ownText(own, value);
  }
  const attribute = attributeName(field);
  if (attribute !== null) return content.attributes.find((a) => a.id === attribute)?.value ?? '';
  switch (field as PlainField) {
    case 'title':
      return content.title;
    case 'text':
      return content.text;
    case 'type':
      return writtenType(content.type);
    case 'module':
      return content.module;
    case 'risk':
      return content.risk;
    case 'likelihood':
      return content.rating === null ? '' : String(content.rating.likelihood + 1);
    case 'impact':
      return content.rating === null ? '' : String(content.rating.impact + 1);
    case 'priority':
      return content.priority;
    case 'source':
      return content.source;
    case 'link':
      return content.origin?.link ?? '';
  }
}

/** The content with fields as files write them. Values were checked when they were read; what is not understood stays as it was. */
export function withFields(content: RequirementContent, values: FieldValues, fields: readonly OwnField[]): RequirementContent {
  const attributes = [...content.attributes];
  let { own } = content;
  for (const [field, value = ''] of Object.entries(values)) {
    const meant = ownFieldNamed(field, fields);
    if (meant !== null) own = withOwnValue(own, meant.id, writeOwn(meant, value));
    const id = attributeName(field as FieldName);
    if (id === null) continue;
    const place = attributes.findIndex((a) => a.id === id);
    if (place >= 0) attributes.splice(place, 1, ...(value === '' ? [] : [{ id, value }]));
    else if (value !== '') attributes.push({ id, value });
  }
  const text = (field: PlainField): string => values[field] ?? fieldText(content, field, fields);
  const [likelihood, impact] = [Number(text('likelihood')), Number(text('impact'))];
  return {
    ...content,
    title: text('title'),
    text: text('text'),
    type: readType(text('type')) ?? content.type,
    module: text('module'),
    risk: readRisk(text('risk')) ?? content.risk,
    rating: likelihood >= 1 && impact >= 1 ? { likelihood: likelihood - 1, impact: impact - 1 } : null,
    priority: text('priority') || content.priority,
    source: text('source'),
    origin: content.origin === null ? null : { ...content.origin, link: text('link') },
    attributes,
    own,
  };
}
