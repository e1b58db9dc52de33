import { EMPTY_SHARED } from '@caderno/core/shared';
import { sharedIdSchema } from '@caderno/contract';
import { useCallback, useMemo } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { useCreate } from '../artefacts/index.ts';
import { Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { Button, Empty } from '../look/index.ts';
import { UseDragging } from '../steps/index.ts';
import { SharedIndex } from './SharedIndex.tsx';
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
    <UseDragging>
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
    </UseDragging>
  );
}
