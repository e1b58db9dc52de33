/** Ids of new parts need only be new within their condition. */
export function newPartId(): string {
  return crypto.randomUUID().slice(0, 8);
}
