import type { SuiteId } from '@caderno/core/artefacts';
import type { SuiteFigures } from '@caderno/core/suites';
import { useState } from 'react';
import { useSummaries } from '../api/index.ts';
import { MarginNote } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { TextButton, locale } from '../look/index.ts';
import { CompareSuites } from './CompareSuites.tsx';
import { useSuiteLines } from './suiteQueries.ts';

const MOST_NAMED = 5;

/** The suites that share members with this one, those that share most first; each is compared with it. */
export function AlsoIn({ id, figures }: { readonly id: SuiteId; readonly figures: SuiteFigures }) {
  const { project } = useFrame();
  const lines = useSuiteLines().data;
  const titles = new Map(useSummaries(project, 'suite').data?.map((s) => [s.id, s.title]));
  const [beside, setBeside] = useState<SuiteId | null>(null);
  const own = new Set(figures.members.map((m) => m.of));
  const sharing = (lines ?? []).flatMap((line) => {
    const shared = line.id === id ? 0 : line.members.filter((m) => own.has(m)).length;
    return shared === 0 ? [] : [{ line, shared }];
  });
  const other = lines?.find((line) => line.id === beside);
  if (sharing.length === 0) return null;
  return (
    <MarginNote title="Also in other suites">
      <ul>
        {sharing.toSorted((a, b) => b.shared - a.shared).slice(0, MOST_NAMED).map(({ line, shared }) => (
          <li key={line.id}>
            {shared.toLocaleString(locale())} of {own.size.toLocaleString(locale())} are also in{' '}
            <TextButton title={titles.get(line.id)} onClick={() => setBeside(line.id)}>
              {line.id} {titles.get(line.id)}
            </TextButton>
          </li>
        ))}
      </ul>
      {other !== undefined && <CompareSuites id={id} own={[...own]} other={other} titleOfOther={titles.get(other.id) ?? ''} onClose={() => setBeside(null)} />}
    </MarginNote>
  );
}
