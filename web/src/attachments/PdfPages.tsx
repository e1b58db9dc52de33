import { GlobalWorkerOptions, getDocument, type PDFDocumentProxy, type PDFPageProxy } from 'pdfjs-dist';
import workerAddress from 'pdfjs-dist/build/pdf.worker.min.mjs?url';
import { useEffect, useRef, useState } from 'react';
import { locale } from '../look/index.ts';

GlobalWorkerOptions.workerSrc = workerAddress;

/** Pages that are drawn; whoever wants more saves the file. */
const MOST_PAGES = 100;
/** Points to pixels; drawn twice as fine for a dense screen. */
const SCALE = 1.35;

type Opened = { readonly kind: 'opening' } | { readonly kind: 'opened'; readonly document: PDFDocumentProxy } | { readonly kind: 'unreadable' };

/** The pages of a PDF below each other, drawn as they come into view. Nothing in the file runs: it is drawn, not opened by the browser. */
export function PdfPages({ address, name }: { readonly address: string; readonly name: string }) {
  const [opened, setOpened] = useState<Opened>({ kind: 'opening' });
  useEffect(() => {
    const task = getDocument({ url: address, isEvalSupported: false, enableXfa: false });
    task.promise.then(
      (document) => setOpened({ kind: 'opened', document }),
      // Whatever the library stumbles over: the file can still be saved.
      () => setOpened({ kind: 'unreadable' }),
    );
    return () => void task.destroy();
  }, [address]);
  switch (opened.kind) {
    case 'opening':
      return <p role="status" className="text-sm text-ink2">Opening the PDF …</p>;
    case 'unreadable':
      return <p role="alert" className="rounded-field bg-ochre-wash px-3 py-2 text-sm text-ochre-ink">This PDF cannot be shown here: it is damaged or locked with a password. It is kept as it is; save it to open it elsewhere.</p>;
    case 'opened': {
      const pages = Math.min(opened.document.numPages, MOST_PAGES);
      return (
        <div tabIndex={0} role="group" aria-label={`Pages of ${name}`} className="max-h-[70vh] space-y-3 overflow-y-auto bg-page2 p-3">
          {Array.from({ length: pages }, (_, i) => (
            <Page key={i} document={opened.document} number={i + 1} />
          ))}
          {opened.document.numPages > pages && <p className="text-sm text-ink2">The first {pages} of {opened.document.numPages.toLocaleString(locale())} pages. Save the file to see the others.</p>}
        </div>
      );
    }
  }
}

function Page({ document, number }: { readonly document: PDFDocumentProxy; readonly number: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    const drawn = canvas.current;
    if (drawn === null) return undefined;
    let page: PDFPageProxy | null = null;
    const observer = new IntersectionObserver(([entry]) => {
      if (entry?.isIntersecting !== true) return;
      observer.disconnect();
      document.getPage(number).then(
        (found) => {
          page = found;
          return draw(found, drawn);
        },
      ).catch(() => setFailed(true));
    });
    observer.observe(drawn);
    return () => {
      observer.disconnect();
      page?.cleanup();
    };
  }, [document, number]);
  return (
    <figure>
      <canvas ref={canvas} role="img" aria-label={`Page ${number}`} width={800} height={1130} className="mx-auto block max-w-full border border-rule2 bg-white" />
      <figcaption className="pt-1 text-center text-xs text-ink2">{failed ? `Page ${number} cannot be drawn.` : number}</figcaption>
    </figure>
  );
}

async function draw(page: PDFPageProxy, canvas: HTMLCanvasElement): Promise<void> {
  const density = Math.min(2, window.devicePixelRatio);
  const viewport = page.getViewport({ scale: SCALE * density });
  canvas.width = viewport.width;
  canvas.height = viewport.height;
  canvas.style.width = `${viewport.width / density}px`;
  await page.render({ canvas, viewport }).promise;
}
