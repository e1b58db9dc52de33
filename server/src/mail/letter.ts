/** The text of a mail: paragraphs, links by themselves, and why it came. */
export function letterText({ paragraphs, why }: { readonly paragraphs: readonly string[]; readonly why: string }): string {
  return `${paragraphs.filter((p) => p !== '').join('\n\n')}\n\n-- \n${why}\n`;
}
