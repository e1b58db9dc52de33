/** A figure is called slower beyond a quarter more, and more than noise: machines are never quite quiet. */
const MORE = 1.25;
const NOISE = 5;

/** What got worse since the kept figures (by name, in the figure's unit), a line each; figures without a kept one are told as new. */
export function slowerThan(kept, figures) {
  return figures.flatMap(({ what, ms, unit = 'ms' }) => {
    const before = kept[what];
    if (before === undefined) return [`NEW    ${what}: ${ms.toFixed(1)} ${unit}`];
    return ms > before * MORE && ms - before > NOISE ? [`SLOWER ${what}: ${before} ${unit} before, ${ms.toFixed(1)} ${unit} now`] : [];
  });
}
