import { parse } from '@cucumber/tag-expressions';

/** Whether something with these tags is meant. */
export type TagTest = (tags: readonly string[]) => boolean;

/** What a tag expression (`@smoke and not (@slow or @manual)`) asks for; null: it is none. An empty one asks for all. */
export function tagTest(expression: string): TagTest | null {
  if (expression.trim() === '') return () => true;
  try {
    const node = parse(expression.trim());
    return (tags) => node.evaluate([...tags]);
  } catch (error) {
    // The library says in English what is wrong; a line that is being written is wrong half of the time, so that nobody is told.
    if (error instanceof Error) return null;
    throw error;
  }
}
