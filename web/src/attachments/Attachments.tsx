import type { Attachment } from '@caderno/core/attachments';
import { LIMITS } from '@caderno/contract';
import { useRef } from 'react';
import { toast } from 'sonner';
import { TextButton } from '../look/index.ts';
import { AttachedFiles } from './AttachedFiles.tsx';
import { UploadLines } from './UploadLines.tsx';
import { withFiles } from './fileWords.ts';
import { useFilesFromOutside } from './useFilesFromOutside.ts';
import { useUploads } from './useUploads.ts';

interface Props {
  readonly attachments: readonly Attachment[];
  readonly canEdit: boolean;
  /** Changes those that are there at that moment: a file may arrive while others are taken away. */
  readonly onChange: (change: (there: readonly Attachment[]) => readonly Attachment[]) => void;
}

/** The files of an artefact as a whole: chosen, dropped anywhere on its page, or pasted. */
export function Attachments({ attachments, canEdit, onChange }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const uploads = useUploads((kept) =>
    onChange((there) => {
      const all = withFiles(there, [kept], LIMITS.attachments);
      if (all === null) toast.error(`One may have ${LIMITS.attachments} files. ${kept.name} was not added.`);
      return all ?? there;
    }),
  );
  const over = useFilesFromOutside(canEdit, uploads.add);
  return (
    <div className={over ? 'rounded-field outline-2 outline-offset-4 outline-dashed outline-blue' : ''}>
      <AttachedFiles label="Attached files" attachments={attachments} picture="h-20 max-w-40" {...(canEdit ? { onRemove: ({ id }: Attachment) => onChange((there) => there.filter((a) => a.id !== id)) } : {})} />
      <UploadLines uploads={uploads} />
      {!canEdit && attachments.length === 0 && <p className="text-xs text-ink2">None.</p>}
      {canEdit && (
        <p className="text-xs text-ink2 print:hidden">
          <TextButton className="text-ink" onClick={() => input.current?.click()}>Attach files</TextButton>
          {over ? ' or drop them here' : attachments.length === 0 && ', drop or paste them'}
          <input
            ref={input}
            type="file"
            multiple
            tabIndex={-1}
            aria-label="Files to attach"
            className="sr-only"
            onChange={(event) => {
              uploads.add([...(event.target.files ?? [])]);
              event.target.value = '';
            }}
          />
        </p>
      )}
    </div>
  );
}
