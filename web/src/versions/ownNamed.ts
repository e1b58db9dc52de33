import { readOwn, type OwnField, type OwnValue } from '@caderno/core/fields';
import { isRecord, type Json } from '@caderno/core/versions';

/** A content as it is compared: what stands in the project's own fields by their names, and as people see it. */
export function ownNamed(content: Json, fields: readonly OwnField[]): Json {
  if (!isRecord(content) || !isRecord(content.own)) return content;
  return { ...content, own: Object.fromEntries(Object.entries(content.own).map(([id, value]) => [ownName(id, fields), ownShown(id, value, fields)])) };
}

/** What a field is called by its id; one that the project has removed says so. */
export function ownName(id: string, fields: readonly OwnField[]): string {
  const field = fields.find((f) => f.id === id);
  return field === undefined ? id : field.removed ? `${field.name} (removed)` : field.name;
}

/** What people see of a value; as it is stored where its field is not known. */
export function ownShown(id: string, value: Json, fields: readonly OwnField[]): Json {
  const field = fields.find((f) => f.id === id);
  const isValue = typeof value === 'string' || (Array.isArray(value) && value.every((v) => typeof v === 'string'));
  return field === undefined || !isValue ? value : readOwn(field, value as OwnValue).shown.join(', ');
}
