import { EMPTY_CASE } from '@caderno/core/cases';
import { caseIdSchema } from '@caderno/contract';
import { useCallback, useDeferredValue, useMemo } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { useCreate } from '../artefacts/index.ts';
import { Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { Button, Empty } from '../look/index.ts';
import { CaseIndex } from './CaseIndex.tsx';
import { CasePage } from './CasePage.tsx';

/** The index of cases at the left, the case that is open at the right. */
export function CasesChapter() {
  const { project, canEdit } = useFrame();
  const parsed = caseIdSchema.safeParse(useParams().case);
  const current = parsed.success ? parsed.data : null;
  const [search, setSearch] = useSearchParams();
  const query = search.get('query') ?? '';
  const cases = useSummaries(project, 'case', useDeferredValue(query)).data;
  const create = useCreate(project);
  const navigate = useNavigate();
  const add = useCallback(async () => {
    const id = await create({ kind: 'case', content: { ...EMPTY_CASE, title: 'New case', module: cases?.find((c) => c.id === current)?.module ?? '' } });
    if (id !== null) await navigate(address.artefact(project, id), { state: { made: true } });
  }, [cases, create, current, navigate, project]);
  const commands = useMemo<Command[]>(() => {
    const ids = cases?.map((c) => c.id) ?? [];
    const open = (step: number) => (): void => {
      const id = ids[(current === null ? -1 : ids.indexOf(current)) + step];
      if (id !== undefined) void navigate({ pathname: address.cases(project, id), search: window.location.search });
    };
    return [
      { id: 'next-case', title: 'Open the next case', keys: 'j', keyLabel: 'j', run: open(1) },
      { id: 'previous-case', title: 'Open the case before', keys: 'k', keyLabel: 'k', run: open(-1) },
      ...(canEdit ? [{ id: 'new-case', title: 'New case', keys: 'n', keyLabel: 'n', run: () => void add() }] : []),
    ];
  }, [add, canEdit, cases, current, navigate, project]);
  useCommands(commands);
  return (
    <Spread
      chapter="cases"
      leftShare={30}
      leftLabel="Index of cases"
      rightLabel="Case"
      left={<CaseIndex cases={cases} current={current} query={query} onQuery={(text) => setSearch(text === '' ? {} : { query: text }, { replace: true })} onNew={() => void add()} />}
      right={
        current === null ? (
          <Empty title="Open a case, or write one" action={canEdit && <Button look="accent" onClick={() => void add()}>Write a case</Button>}>
            A case is one page: its purpose, its steps with parameters, its data, and what it shows.
          </Empty>
        ) : (
          <CasePage id={current} />
        )
      }
    />
  );
}
