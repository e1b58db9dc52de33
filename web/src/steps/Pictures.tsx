import type { Attachment, PlainStep } from '@caderno/core/cases';
import { LIMITS } from '@caderno/contract';
import { ImagePlus, X } from 'lucide-react';
import { useRef } from 'react';
import { toast } from 'sonner';
import { call, pictureAddress, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** Keeps pictures with the project; answers how a step names them. One that is refused is told, the others are kept. */
export function useKeepPictures(): (files: readonly File[]) => Promise<Attachment[]> {
  const { project } = useFrame();
  return async (files) => {
    const kept: Attachment[] = [];
    for (const file of files) {
      try {
        const { id } = await call('keepAttachment', { params: { project }, body: new Uint8Array(await file.arrayBuffer()) });
        kept.push({ id, name: file.name.slice(0, LIMITS.title) || 'picture' });
      } catch (error) {
        tellFailure(error);
      }
    }
    return kept;
  };
}

/** The step's pictures and new ones; each once, and no more than a step may have. */
export function withPictures({ attachments }: PlainStep, more: readonly Attachment[]): readonly Attachment[] {
  const all = [...attachments, ...more.filter((m, i) => !attachments.some((a) => a.id === m.id) && more.findIndex((o) => o.id === m.id) === i)];
  if (all.length > LIMITS.attachments) toast.error(`A step may have ${LIMITS.attachments} pictures. The others were not added.`);
  return all.slice(0, LIMITS.attachments);
}

interface Props {
  readonly step: PlainStep;
  readonly number: number;
  readonly canEdit: boolean;
  readonly onChange: (attachments: readonly Attachment[]) => void;
}

/** The pictures of a step, small; a click opens one whole. */
export function Pictures({ step, number, canEdit, onChange }: Props) {
  const { project } = useFrame();
  if (step.attachments.length === 0) return null;
  return (
    <ul aria-label={`Pictures of step ${number}`} className="my-1 flex flex-wrap gap-2">
      {step.attachments.map((a) => (
        <li key={a.id} className="group/picture relative">
          <a href={pictureAddress(project, a.id)} target="_blank" rel="noreferrer" title={`${a.name}: open it whole`}>
            <img src={pictureAddress(project, a.id)} alt={a.name} className="h-20 max-w-48 border border-rule2 bg-page2 object-contain" />
          </a>
          {canEdit && (
            <button type="button" aria-label={`Take the picture ${a.name} away`} title="Take it away" className="absolute right-0.5 top-0.5 hidden size-6 place-items-center rounded bg-page text-ink2 focus:grid group-focus-within/picture:grid group-hover/picture:grid" onClick={() => onChange(step.attachments.filter((x) => x.id !== a.id))}>
              <X size={13} aria-hidden="true" />
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Chooses pictures from files. They can be pasted into a step as well. */
export function AddPicture({ number, onAdd }: { readonly number: number; readonly onAdd: (files: readonly File[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" tabIndex={-1} aria-label={`Add a picture to step ${number}`} title="Add a picture; or paste one into the step" className="grid size-6 place-items-center rounded text-ink2 hover:bg-page2" onClick={() => input.current?.click()}>
        <ImagePlus size={13} aria-hidden="true" />
      </button>
      <input
        ref={input}
        type="file"
        multiple
        accept="image/png,image/jpeg,image/gif,image/webp"
        aria-label={`Picture files for step ${number}`}
        className="hidden"
        onChange={(event) => {
          onAdd([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </>
  );
}
