import type { SharedSummary } from '@caderno/contract';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { ModuleIndex } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { countOf } from '../look/index.ts';
import { DraggableUse } from '../steps/index.ts';

interface Props {
  readonly list: readonly SharedSummary[] | undefined;
  readonly current: string | null;
  /** Absent: none is made here. */
  readonly onNew?: () => void;
  /** What stands above the list. */
  readonly heading: ReactNode;
}

/** Shared steps by module; each can be dragged among the steps of what is open. */
export function SharedIndex({ list, current, onNew, heading }: Props) {
  const { project, canEdit } = useFrame();
  return (
    <ModuleIndex
      list={list}
      current={current}
      heading={heading}
      name="shared steps"
      wordsOf={() => ''}
      notes={(s) => [countOf(s.steps, 'step'), ...(s.parameters.length === 0 ? [] : [s.parameters.map((p) => `<${p}>`).join(' ')])]}
      {...(onNew === undefined ? {} : { onNew })}
      wrap={(s, line) => (
        <DraggableUse id={s.id} enabled={canEdit}>
          {line}
        </DraggableUse>
      )}
    >
      <p className="flex flex-wrap gap-x-4 px-5 py-3 text-sm">
        <Link className="underline decoration-rule2" to={address.reuse(project)}>
          Show graph
        </Link>
        <Link className="underline decoration-rule2" to={address.alike(project)}>
          written twice
        </Link>
      </p>
    </ModuleIndex>
  );
}
