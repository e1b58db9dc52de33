/** What {@link work} takes on the machine the budgets are meant for, when it does nothing else. */
const USUAL_MS = 220;

/**
 * How many times slower this machine is now than the one the budgets are meant for; at least 1. A test that holds a time
 * against a budget asks before and after, so that a machine that others use at the same time fails nothing.
 */
export function pace() {
  const began = performance.now();
  work();
  return Math.max(1, (performance.now() - began) / USUAL_MS);
}

/** What a server mostly does: objects made, ordered, written as text and read again. */
function work() {
  for (let round = 0; round < 4; round += 1) {
    const rows = Array.from({ length: 12_000 }, (_, i) => ({ id: `r${(i * 7_919) % 12_000}`, cells: { a: String(i), b: `value ${i}` } }));
    rows.sort((a, b) => (a.id < b.id ? -1 : 1));
    JSON.parse(JSON.stringify(rows));
  }
}
