import type { SharedSummary } from '@caderno/contract';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { Button, countOf } from '../look/index.ts';
import { DraggableUse } from '../steps/index.ts';

interface Props {
  readonly list: readonly SharedSummary[] | undefined;
  readonly current: string | null;
  /** Absent: none is made here. */
  readonly onNew?: () => void;
  /** What stands above the list. */
  readonly heading?: ReactNode;
}

/** Shared steps by module; each can be dragged among the steps of what is open. */
export function SharedIndex({ list, current, onNew, heading }: Props) {
  const { project, canEdit } = useFrame();
  const [words, setWords] = useState('');
  const fitting = (list ?? []).filter((s) => words.toLowerCase().split(/\s+/).every((w) => `${s.id} ${s.title} ${s.module}`.toLowerCase().includes(w)));
  const modules = [...new Set(fitting.map((s) => s.module))];
  return (
    <div className="flex h-full flex-col">
      <header className="px-5 pb-3 pt-5">
        {heading ?? (
          <h1 className="flex items-baseline gap-2 font-serif text-xl font-semibold">
            Shared steps <span className="font-sans text-xs font-normal text-ink2">{list?.length ?? ''}</span>
          </h1>
        )}
        <div className="mt-2 flex gap-2">
          <input aria-label="Filter the shared steps by words" placeholder="Words of a title" value={words} onChange={(e) => setWords(e.target.value)} className="field-boxed min-w-0 flex-1 bg-page2" />
          {canEdit && onNew !== undefined && <Button onClick={onNew}>New</Button>}
        </div>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-rule">
        {modules.map((module) => (
          <section key={module}>
            <h2 className="flex border-b border-rule bg-page2 px-5 py-1.5 text-xs font-semibold text-ink2">
              {module || 'No module'} <span className="ml-auto font-normal">{fitting.filter((s) => s.module === module).length}</span>
            </h2>
            <ul>
              {fitting.filter((s) => s.module === module).map((s) => (
                <li key={s.id}>
                  <DraggableUse id={s.id} enabled={canEdit}>
                    <Link
                      draggable={false}
                      to={address.shared(project, s.id)}
                      aria-current={s.id === current ? 'page' : undefined}
                      className={`flex gap-2.5 border-b border-rule px-5 py-2 ${s.id === current ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}
                    >
                      <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{s.id}</span>
                      <span className="min-w-0 flex-1">
                        <span className={`block leading-[1.35] ${s.id === current ? 'font-semibold' : ''}`}>{s.title}</span>
                        <span className="block truncate text-xs text-ink2">
                          {countOf(s.steps, 'step')}
                          {s.parameters.length > 0 && ` · ${s.parameters.map((p) => `<${p}>`).join(' ')}`}
                          {s.state !== 'draft' && ` · ${s.state}`}
                        </span>
                      </span>
                    </Link>
                  </DraggableUse>
                </li>
              ))}
            </ul>
          </section>
        ))}
        <p className="flex flex-wrap gap-x-4 px-5 py-3 text-sm">
          <Link className="underline decoration-rule2" to={address.reuse(project)}>
            reuse, drawn
          </Link>
          <Link className="underline decoration-rule2" to={address.alike(project)}>
            written twice
          </Link>
        </p>
        {list !== undefined && fitting.length === 0 && <p className="px-5 py-4 text-ink2">{list.length === 0 ? 'None yet.' : 'None has these words.'}</p>}
      </div>
    </div>
  );
}
