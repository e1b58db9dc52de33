import { RE2JS, RE2JSException } from 're2js';

/** Whether a text matches a pattern as a whole. */
export type PatternTest = (text: string) => boolean;

/**
 * Reads a pattern, a regular expression in the syntax of RE2: what others write, without back references and looking
 * around, so that no pattern and no text can take longer than in proportion to their length. Null when it is none.
 */
export function readPattern(pattern: string): PatternTest | null {
  if (pattern === '') return null;
  try {
    const compiled = RE2JS.compile(pattern);
    return (text) => compiled.testExact(text);
  } catch (error) {
    if (error instanceof RE2JSException) return null;
    throw error;
  }
}
