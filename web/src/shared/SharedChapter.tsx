import { EMPTY_SHARED } from '@caderno/core/shared';
import { sharedIdSchema, type SharedSummary } from '@caderno/contract';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { useCreate } from '../artefacts/index.ts';
import { Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { Button, Empty, countOf } from '../look/index.ts';
import { SharedPage } from './SharedPage.tsx';

/** What is written once and used in many places: the list at the left, what is open at the right. */
export function SharedChapter() {
  const { project, canEdit } = useFrame();
  const parsed = sharedIdSchema.safeParse(useParams().shared);
  const current = parsed.success ? parsed.data : null;
  const list = useSummaries(project, 'shared').data;
  const create = useCreate(project);
  const navigate = useNavigate();
  const add = useCallback(async () => {
    const id = await create({ kind: 'shared', content: { ...EMPTY_SHARED, title: 'New shared steps' } });
    if (id !== null) await navigate(address.artefact(project, id), { state: { made: true } });
  }, [create, navigate, project]);
  const commands = useMemo<Command[]>(() => {
    const open = (step: number) => (): void => {
      const ids = list?.map((s) => s.id) ?? [];
      const id = ids[(current === null ? -1 : ids.indexOf(current)) + step];
      if (id !== undefined) void navigate(address.shared(project, id));
    };
    return [
      { id: 'next-shared', title: 'Open the next shared steps', keys: 'j', keyLabel: 'j', run: open(1) },
      { id: 'previous-shared', title: 'Open the shared steps before', keys: 'k', keyLabel: 'k', run: open(-1) },
      ...(canEdit ? [{ id: 'new-shared', title: 'New shared steps', keys: 'n', keyLabel: 'n', run: () => void add() }] : []),
    ];
  }, [add, canEdit, current, list, navigate, project]);
  useCommands(commands);
  return (
    <Spread
      chapter="shared"
      leftShare={30}
      leftLabel="Shared steps"
      rightLabel="What is open"
      left={<SharedIndex list={list} current={current} onNew={() => void add()} />}
      right={
        current === null ? (
          <Empty title="Written once, used in many cases" action={canEdit && <Button look="accent" onClick={() => void add()}>Write shared steps</Button>}>
            Steps that stand in many cases are written here. In a case, / puts them in; a run of steps can be taken out of a case into shared steps.
          </Empty>
        ) : (
          <SharedPage id={current} />
        )
      }
    />
  );
}

function SharedIndex({ list, current, onNew }: { readonly list: readonly SharedSummary[] | undefined; readonly current: string | null; readonly onNew: () => void }) {
  const { project, canEdit } = useFrame();
  const [words, setWords] = useState('');
  const fitting = (list ?? []).filter((s) => words.toLowerCase().split(/\s+/).every((w) => `${s.id} ${s.title} ${s.module}`.toLowerCase().includes(w)));
  const modules = [...new Set(fitting.map((s) => s.module))];
  return (
    <div className="flex h-full flex-col">
      <header className="px-5 pb-3 pt-5">
        <h1 className="flex items-baseline gap-2 font-serif text-xl font-semibold">
          Shared steps <span className="font-sans text-xs font-normal text-ink2">{list?.length ?? ''}</span>
        </h1>
        <div className="mt-2 flex gap-2">
          <input aria-label="Filter the shared steps by words" placeholder="Words of a title" value={words} onChange={(e) => setWords(e.target.value)} className="field-boxed min-w-0 flex-1 bg-page2" />
          {canEdit && <Button onClick={onNew}>New</Button>}
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
                  <Link
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
                </li>
              ))}
            </ul>
          </section>
        ))}
        {list !== undefined && fitting.length === 0 && <p className="px-5 py-4 text-ink2">{list.length === 0 ? 'None yet.' : 'None has these words.'}</p>}
      </div>
    </div>
  );
}
