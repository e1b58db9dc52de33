/** Stands in lists at what is stored and cannot be read; its page says why. */
export function CannotBeRead() {
  return <span className="shrink-0 text-xs text-brick">cannot be read</span>;
}
