import type { DefectLink } from '@caderno/core/artefacts';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { call, failureSentence, useTracker } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { TextButton, TextBox } from '../look/index.ts';

interface Props {
  readonly defects: readonly DefectLink[];
  readonly canEdit: boolean;
  readonly onChange: (defects: readonly DefectLink[]) => void;
}

/** The defects of the tracker that belong to a case or a condition. */
export function Defects({ defects, canEdit, onChange }: Props) {
  const { project } = useFrame();
  const connected = useTracker(project).data?.connected === true;
  const [finding, setFinding] = useState(false);
  return (
    <>
      <ul aria-label="Defects" className="text-sm">
        {defects.map((defect) => (
          <li key={defect.id} className="flex items-baseline gap-2 py-0.5">
            <span className="shrink-0 font-mono text-xs text-ink2">{defect.id}</span>
            <span className="min-w-0 flex-1">{/^https?:/i.test(defect.link) ? <a className="hover:underline" href={defect.link} target="_blank" rel="noreferrer">{defect.title}</a> : defect.title}</span>
            {canEdit && (
              <TextButton className="text-xs" aria-label={`Unlink ${defect.id}`} onClick={() => onChange(defects.filter((d) => d.id !== defect.id))}>
                unlink
              </TextButton>
            )}
          </li>
        ))}
      </ul>
      {defects.length === 0 && !finding && <p className="text-xs text-ink2">None linked.{!connected && <span className="print:hidden"> A lead connects a tracker in the settings.</span>}</p>}
      {canEdit && connected && !finding && (
        <TextButton className="text-xs" onClick={() => setFinding(true)}>
          link a defect
        </TextButton>
      )}
      {finding && <FindDefect linked={defects} onFound={(defect) => onChange([...defects, defect])} onClose={() => setFinding(false)} />}
    </>
  );
}

function FindDefect({ linked, onFound, onClose }: { readonly linked: readonly DefectLink[]; readonly onFound: (defect: DefectLink) => void; readonly onClose: () => void }) {
  const { project } = useFrame();
  const [words, setWords] = useState('');
  const asked = useDeferredValue(words.trim());
  const found = useQuery({ queryKey: [project, 'list', 'defects', asked], queryFn: ({ signal }) => call('findDefects', { params: { project }, query: { words: asked } }, { signal }), retry: false });
  return (
    <div className="mt-1">
      <TextBox autoFocus aria-label="Defect, by key or words" placeholder="Key or words of a defect" value={words} onChange={setWords} onKeyDown={(e) => e.key === 'Escape' && onClose()} className="w-full !min-h-[28px] !py-0.5 text-sm" />
      {found.error !== null && <p className="text-xs text-brick">{failureSentence(found.error)}</p>}
      <ul>
        {(found.data ?? [])
          .filter((d) => !linked.some((l) => l.id === d.id))
          .slice(0, 6)
          .map(({ id, title, status, link }) => (
            <li key={id}>
              <button type="button" className="flex w-full gap-2 px-1 py-1 text-left text-sm hover:bg-blue-wash" onClick={() => (onFound({ id, title, link }), onClose())}>
                <span className="shrink-0 font-mono text-xs leading-5 text-ink2">{id}</span>
                <span className="min-w-0 flex-1">{title}</span>
                <span className="text-xs text-ink2">{status}</span>
              </button>
            </li>
          ))}
      </ul>
      <TextButton className="text-xs" onClick={onClose}>
        not now
      </TextButton>
    </div>
  );
}
