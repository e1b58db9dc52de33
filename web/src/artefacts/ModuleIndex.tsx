import type { ArtefactState, ArtefactId } from '@caderno/core/artefacts';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { Button, CannotBeRead } from '../look/index.ts';

/** What a list shows of an artefact. */
interface Listed {
  readonly id: ArtefactId;
  readonly title: string;
  readonly module: string;
  readonly state: ArtefactState;
  readonly broken: boolean;
}

interface Props<L extends Listed> {
  readonly list: readonly L[] | undefined;
  readonly current: string | null;
  readonly heading: ReactNode;
  /** What they are called, and the words one filters them by. */
  readonly name: string;
  readonly wordsOf: (listed: L) => string;
  /** In small print below the title. */
  readonly notes: (listed: L) => readonly string[];
  /** Absent: none is made here. */
  readonly onNew?: () => void;
  /** Puts a line into something that handles it. */
  readonly wrap?: (listed: L, line: ReactNode) => ReactNode;
  readonly children?: ReactNode;
}

/** The left page of a chapter whose artefacts stand by module: filtered by words, each leading to its page. */
export function ModuleIndex<L extends Listed>({ list, current, heading, name, wordsOf, notes, onNew, wrap = (_, line) => line, children }: Props<L>) {
  const { canEdit } = useFrame();
  const [words, setWords] = useState('');
  const fitting = (list ?? []).filter((l) => words.toLowerCase().split(/\s+/).every((w) => `${l.id} ${l.title} ${l.module} ${wordsOf(l)}`.toLowerCase().includes(w)));
  const modules = [...new Set(fitting.map((l) => l.module))];
  return (
    <div className="flex h-full flex-col">
      <header className="px-5 pb-3 pt-5">
        {heading}
        <div className="mt-2 flex gap-2">
          <input aria-label={`Filter the ${name} by words`} placeholder="Words of a title" value={words} onChange={(e) => setWords(e.target.value)} className="field-boxed min-w-0 flex-1 bg-page2" />
          {canEdit && onNew !== undefined && <Button onClick={onNew}>New</Button>}
        </div>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-rule">
        {modules.map((module) => (
          <section key={module}>
            <h2 className="flex border-b border-rule bg-page2 px-5 py-1.5 text-xs font-semibold text-ink2">
              {module || 'No module'} <span className="ml-auto font-normal">{fitting.filter((l) => l.module === module).length}</span>
            </h2>
            <ul>
              {fitting.filter((l) => l.module === module).map((l) => (
                <li key={l.id}>{wrap(l, <Line listed={l} isCurrent={l.id === current} notes={notes(l)} />)}</li>
              ))}
            </ul>
          </section>
        ))}
        {children}
        {list !== undefined && fitting.length === 0 && <p className="px-5 py-4 text-ink2">{list.length === 0 ? 'None yet.' : 'None has these words.'}</p>}
      </div>
    </div>
  );
}

function Line({ listed: { id, title, state, broken }, isCurrent, notes }: { readonly listed: Listed; readonly isCurrent: boolean; readonly notes: readonly string[] }) {
  const { project } = useFrame();
  return (
    <Link
      draggable={false}
      to={address.artefact(project, id)}
      aria-current={isCurrent ? 'page' : undefined}
      className={`flex gap-2.5 border-b border-rule px-5 py-2 ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}
    >
      <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{id}</span>
      <span className="min-w-0 flex-1">
        <span className={`block leading-[1.35] ${isCurrent ? 'font-semibold' : ''}`}>{title}</span>
        <span className="block truncate text-xs text-ink2">{broken ? <CannotBeRead /> : [...notes, ...(state === 'draft' ? [] : [state])].join(' · ')}</span>
      </span>
    </Link>
  );
}
