import type { CaseId, SharedId } from '@caderno/core/artefacts';
import type { Use } from '@caderno/core/cases';
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useMemo, useState } from 'react';
import { useSummaries } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Dialog, countOf } from '../look/index.ts';
import { UsePreview } from './UsePreview.tsx';
import { newUse } from './stepEdits.ts';

interface Props {
  readonly onInsert: (use: Use) => void;
  readonly onClose: () => void;
}

interface Offered {
  readonly id: SharedId | CaseId;
  readonly title: string;
  readonly aside: string;
}

const MOST_OFFERED = 40;

/** What can be put among the steps: shared steps first, then cases to call; what is pointed at is seen before it is placed. */
export function InsertUse({ onInsert, onClose }: Props) {
  const { project } = useFrame();
  const shared = useSummaries(project, 'shared').data;
  const cases = useSummaries(project, 'case').data;
  const [query, setQuery] = useState('');
  const [pointed, setPointed] = useState<Offered['id'] | null>(null);
  const offered = useMemo(() => {
    const words = query.toLowerCase().split(/\s+/).filter(Boolean);
    const all: Offered[] = [
      ...(shared ?? []).filter((s) => s.state !== 'withdrawn').map((s) => ({ id: s.id, title: s.title, aside: `shared · ${countOf(s.steps, 'step')}` })),
      ...(cases ?? []).filter((c) => c.state !== 'withdrawn').map((c) => ({ id: c.id, title: c.title, aside: `call · ${countOf(c.steps, 'step')}` })),
    ];
    return all.filter((o) => words.every((w) => `${o.id} ${o.title}`.toLowerCase().includes(w))).slice(0, MOST_OFFERED);
  }, [cases, query, shared]);
  const shown = pointed !== null && offered.some((o) => o.id === pointed) ? pointed : (offered[0]?.id ?? null);
  return (
    <Dialog title="Put in shared steps or a call" onClose={onClose} wide>
      <Combobox<Offered['id'] | null> value={null} onChange={(id) => id !== null && onInsert(newUse(id))}>
        <ComboboxInput autoFocus aria-label="Shared steps or a case, by id or words" placeholder="An id, or words of a title" autoComplete="off" value={query} onChange={(e) => setQuery(e.target.value)} className="field-boxed w-full" />
        <div className="mt-3 grid h-[46vh] grid-cols-2 gap-5">
          <ComboboxOptions static modal={false} className="overflow-y-auto border-t border-rule">
            {offered.map((o) => (
              <ComboboxOption key={o.id} value={o.id} className="flex cursor-pointer items-baseline gap-2 border-b border-rule px-2 py-1.5 data-focus:bg-blue-wash">
                {({ focus }) => <Option offered={o} focus={focus} onPoint={setPointed} />}
              </ComboboxOption>
            ))}
            {offered.length === 0 && <p className="px-2 py-2 text-sm text-ink2">Nothing of that name can be used.</p>}
          </ComboboxOptions>
          <div className="overflow-y-auto rounded-field bg-page2 px-3 py-2" aria-label="What it holds" role="region">
            {shown !== null && <UsePreview id={shown} />}
          </div>
        </div>
        <p className="mt-3 text-xs text-ink2">Enter puts it in. Where its values come from is said at its place.</p>
      </Combobox>
    </Dialog>
  );
}

function Option({ offered, focus, onPoint }: { readonly offered: Offered; readonly focus: boolean; readonly onPoint: (id: Offered['id']) => void }) {
  const [was, setWas] = useState(false);
  if (focus !== was) {
    setWas(focus);
    if (focus) queueMicrotask(() => onPoint(offered.id));
  }
  return (
    <>
      <span className="w-10 shrink-0 font-mono text-xs text-ink2">{offered.id}</span>
      <span className="min-w-0 flex-1">{offered.title}</span>
      <span className="shrink-0 text-xs text-ink2">{offered.aside}</span>
    </>
  );
}
