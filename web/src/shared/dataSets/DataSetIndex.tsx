import type { DataSetSummary } from '@caderno/contract';
import type { ReactNode } from 'react';
import { ModuleIndex } from '../../artefacts/index.ts';
import { countOf } from '../../look/index.ts';

interface Props {
  readonly list: readonly DataSetSummary[] | undefined;
  readonly current: string | null;
  readonly onNew: () => void;
  readonly heading: ReactNode;
}

/** Data sets by module. */
export function DataSetIndex({ list, current, onNew, heading }: Props) {
  return (
    <ModuleIndex
      list={list}
      current={current}
      heading={heading}
      name="data sets"
      wordsOf={(s) => s.parameters.join(' ')}
      notes={(s) => [countOf(s.rows, 'row'), ...(s.parameters.length === 0 ? [] : [s.parameters.map((p) => `<${p}>`).join(' ')]), ...(s.serves.length === 0 ? [] : [`serves ${s.serves.join(', ')}`])]}
      onNew={onNew}
    />
  );
}
