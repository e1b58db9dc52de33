/** Pages as they lie in an element, until they are let go of. */
export interface LaidOutPages {
  readonly total: number;
  release(): void;
}

/** Sheets of A4 with the title and the page at their foot; what refers to something says on which page it stands. */
const ON_PAGES = `
@page {
  size: A4 portrait;
  margin: 17mm 16mm 18mm;
  @bottom-left { content: string(title); font: 8.5pt var(--font-sans); color: var(--color-ink2); }
  @bottom-right { content: counter(page) ' / ' counter(pages); font: 8.5pt var(--font-sans); color: var(--color-ink2); }
}
.spec-title { string-set: title content(text); }
.spec-chapter { break-before: page; }
.spec-keep { break-after: avoid; }
.spec-whole, .spec-chapter tr { break-inside: avoid; }
.spec-entry::after { content: target-counter(attr(href), page); }
.spec-page::after { content: ' (p. ' target-counter(attr(href), page) ')'; }
`;

/**
 * Lays a document out on pages within an element, in which it has to be seen while that goes on. `onPage` hears how many there are so far.
 * Answers null when it was stopped; nothing is left then.
 */
export async function layOutPages(content: DocumentFragment, into: HTMLElement, onPage: (pages: number) => void, stop: AbortSignal): Promise<LaidOutPages | null> {
  const { Previewer } = await import('pagedjs');
  const previewer = new Previewer();
  const release = (): void => {
    previewer.polisher.destroy();
    into.replaceChildren();
  };
  let pages = 0;
  previewer.on('page', () => onPage((pages += 1)));
  stop.addEventListener('abort', () => previewer.chunker.stop());
  try {
    const { total } = await previewer.preview(content, [{ 'specification.css': ON_PAGES }], into);
    if (!stop.aborted) return { total, release };
  } catch (error) {
    release();
    throw error;
  }
  release();
  return null;
}
