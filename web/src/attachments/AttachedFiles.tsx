import { attachmentForm, type Attachment } from '@caderno/core/attachments';
import { FileArchive, FileSpreadsheet, FileText, X } from 'lucide-react';
import { Suspense, lazy, useState, type ReactNode } from 'react';
import { attachmentAddress } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { IconButton } from '../look/index.ts';
import { isSeenInPlace, sizeWords } from './fileWords.ts';

const AttachmentView = lazy(() => import('./AttachmentView.tsx').then((m) => ({ default: m.AttachmentView })));

interface Props {
  /** What the list is called. */
  readonly label: string;
  readonly attachments: readonly Attachment[];
  /** Absent where nothing is taken away. */
  readonly onRemove?: (attachment: Attachment) => void;
  /** How a picture is drawn. */
  readonly picture: string;
}

/** Attached files: pictures small, the rest by name. Pictures and PDF open in place, everything else is saved. */
export function AttachedFiles({ label, attachments, onRemove, picture }: Props) {
  const [seen, setSeen] = useState<Attachment | null>(null);
  if (attachments.length === 0) return null;
  return (
    <>
      <ul aria-label={label} className="my-1 flex flex-wrap gap-x-3 gap-y-1.5">
        {attachments.map((attachment) => (
          <li key={attachment.id} className="group/file flex max-w-full items-center gap-1">
            <OneFile attachment={attachment} picture={picture} onSee={() => setSeen(attachment)} />
            {onRemove !== undefined && (
              <span className="opacity-0 focus-within:opacity-100 group-hover/file:opacity-100 print:hidden">
                <IconButton label={`Remove ${attachment.name}`} icon={<X size={13} aria-hidden="true" />} onClick={() => onRemove(attachment)} />
              </span>
            )}
          </li>
        ))}
      </ul>
      {seen !== null && (
        <Suspense>
          <AttachmentView attachments={attachments.filter(isSeenInPlace)} first={seen} onClose={() => setSeen(null)} />
        </Suspense>
      )}
    </>
  );
}

function OneFile({ attachment, picture, onSee }: { readonly attachment: Attachment; readonly picture: string; readonly onSee: () => void }) {
  const { project } = useFrame();
  const { name, type, size } = attachment;
  const there = attachmentAddress(project, attachment);
  switch (attachmentForm(type)) {
    case 'picture':
      return (
        <button type="button" onClick={onSee} title={`${name}: open it`} aria-label={`Open ${name}`}>
          <img src={there} alt={name} loading="lazy" className={`border border-rule2 bg-page2 object-contain ${picture}`} />
        </button>
      );
    case 'pdf':
      return (
        <button type="button" onClick={onSee} className="flex min-h-6 min-w-0 items-center gap-1 text-left" aria-label={`Open ${name}`}>
          <Named name={name} size={size} icon={<FileText size={14} aria-hidden="true" className="shrink-0" />} />
        </button>
      );
    case 'file':
      return (
        <a href={there} download={name} className="flex min-h-6 min-w-0 items-center gap-1" title={`Save ${name}`}>
          <Named name={name} size={size} icon={iconOf(name)} />
        </a>
      );
  }
}

function Named({ name, size, icon }: { readonly name: string; readonly size: number | null; readonly icon: ReactNode }) {
  return (
    <>
      {icon}
      <span className="min-w-0 [overflow-wrap:anywhere]">
        <span className="underline decoration-rule2 underline-offset-2 group-hover/file:decoration-current">{name}</span> <span className="whitespace-nowrap text-ink2">{sizeWords(size)}</span>
      </span>
    </>
  );
}

function iconOf(name: string): ReactNode {
  const Icon = /\.(?:xlsx?|ods|csv|tsv)$/i.test(name) ? FileSpreadsheet : /\.(?:zip|7z|t?gz|tar|reqifz)$/i.test(name) ? FileArchive : FileText;
  return <Icon size={14} aria-hidden="true" className="shrink-0" />;
}
