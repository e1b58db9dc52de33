/** Whether nothing is named twice. A command that names something twice is refused: which of both was meant nobody can tell. */
export function isEachOnce(names: readonly string[]): boolean {
  return new Set(names).size === names.length;
}
