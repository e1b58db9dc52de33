import { attachmentForm, type Attachment } from '@caderno/core/attachments';
import { Suspense, lazy, useState } from 'react';
import { attachmentAddress } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog } from '../look/index.ts';
import { sizeWords } from './fileWords.ts';

const PdfPages = lazy(() => import('./PdfPages.tsx').then((m) => ({ default: m.PdfPages })));

interface Props {
  /** Those that are seen in place. */
  readonly attachments: readonly Attachment[];
  readonly first: Attachment;
  readonly onClose: () => void;
}

/** A picture or a PDF, large; the arrows lead to the next. */
export function AttachmentView({ attachments, first, onClose }: Props) {
  const { project } = useFrame();
  const [at, setAt] = useState(() => Math.max(0, attachments.findIndex((a) => a.id === first.id)));
  const shown = attachments[at] ?? first;
  const there = attachmentAddress(project, shown);
  const go = (by: -1 | 1): void => setAt((at + by + attachments.length) % attachments.length);
  return (
    <Dialog title={shown.name} onClose={onClose} wide>
      <div
        onKeyDown={(event) => {
          if (attachments.length < 2 || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return;
          event.preventDefault();
          go(event.key === 'ArrowLeft' ? -1 : 1);
        }}
      >
        <div className="mb-3 flex flex-wrap items-center gap-2 text-xs text-ink2">
          {attachments.length > 1 && (
            <>
              <Button data-first onClick={() => go(-1)}>Previous</Button>
              <Button onClick={() => go(1)}>Next</Button>
              <span role="status">
                {at + 1} of {attachments.length}
              </span>
            </>
          )}
          <span className="ml-auto">{sizeWords(shown.size)}</span>
          <a href={there} download={shown.name} className="underline decoration-rule2 underline-offset-2">Save to this computer</a>
          <Button onClick={onClose}>Close</Button>
        </div>
        {attachmentForm(shown.type) === 'pdf' ? (
          <Suspense fallback={<p className="text-sm text-ink2">Opening the PDF …</p>}>
            <PdfPages key={shown.id} address={there} name={shown.name} />
          </Suspense>
        ) : (
          <img key={shown.id} src={there} alt={shown.name} className="mx-auto max-h-[70vh] max-w-full border border-rule2 bg-page2 object-contain" />
        )}
      </div>
    </Dialog>
  );
}
