import type { DataSetSummary } from '@caderno/contract';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { Button, countOf } from '../look/index.ts';

interface Props {
  readonly list: readonly DataSetSummary[] | undefined;
  readonly current: string | null;
  readonly onNew: () => void;
  readonly heading: ReactNode;
}

/** Data sets by module. */
export function DataSetIndex({ list = [], current, onNew, heading }: Props) {
  const { canEdit } = useFrame();
  const [words, setWords] = useState('');
  const fitting = list.filter((s) => words.toLowerCase().split(/\s+/).every((w) => `${s.id} ${s.title} ${s.module} ${s.parameters.join(' ')}`.toLowerCase().includes(w)));
  return (
    <div className="flex h-full flex-col">
      <header className="px-5 pb-3 pt-5">
        {heading}
        <div className="mt-2 flex gap-2">
          <input aria-label="Filter the data sets by words" placeholder="Words of a title or a column" value={words} onChange={(e) => setWords(e.target.value)} className="field-boxed min-w-0 flex-1 bg-page2" />
          {canEdit && <Button onClick={onNew}>New</Button>}
        </div>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-rule">
        <ByModule list={fitting} current={current} />
        {fitting.length === 0 && <p className="px-5 py-4 text-ink2">{list.length === 0 ? 'None yet.' : 'None has these words.'}</p>}
      </div>
    </div>
  );
}

function ByModule({ list, current }: { readonly list: readonly DataSetSummary[]; readonly current: string | null }) {
  const { project } = useFrame();
  const modules = [...new Set(list.map((s) => s.module))];
  return modules.map((module) => (
    <section key={module}>
      <h2 className="flex border-b border-rule bg-page2 px-5 py-1.5 text-xs font-semibold text-ink2">
        {module || 'No module'} <span className="ml-auto font-normal">{list.filter((s) => s.module === module).length}</span>
      </h2>
      <ul>
        {list.filter((s) => s.module === module).map((s) => (
          <li key={s.id}>
            <Link
              to={address.dataSet(project, s.id)}
              aria-current={s.id === current ? 'page' : undefined}
              className={`flex gap-2.5 border-b border-rule px-5 py-2 ${s.id === current ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}
            >
              <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{s.id}</span>
              <span className="min-w-0 flex-1">
                <span className={`block leading-[1.35] ${s.id === current ? 'font-semibold' : ''}`}>{s.title}</span>
                <span className="block truncate text-xs text-ink2">
                  {countOf(s.rows, 'row')}
                  {s.parameters.length > 0 && ` · ${s.parameters.map((p) => `<${p}>`).join(' ')}`}
                  {s.serves.length > 0 && ` · serves ${s.serves.join(', ')}`}
                  {s.state !== 'draft' && ` · ${s.state}`}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  ));
}
