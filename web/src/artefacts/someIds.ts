/** Ids for an update, which may run twice: each run gets the same ones. */
export function someIds(): () => () => string {
  const made: string[] = [];
  return () => {
    let used = 0;
    return () => (made[used++] ??= crypto.randomUUID().slice(0, 8));
  };
}
