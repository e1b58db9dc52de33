import type { ConditionId } from '@caderno/core/artefacts';
import { Ticks } from '../artefacts/index.ts';
import { ListPage, useListing, type LineLook } from '../listing/index.ts';
import { MODEL_WORD, RISK_WORD, STATE_WORD, countOf } from '../look/index.ts';
import { useCoverage } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { ConditionsHeading } from './ConditionsHeading.tsx';
import { useMemo } from 'react';

/** All conditions of the project at the left, whichever requirement they hang on. */
export function AllConditions({ current }: { readonly current: ConditionId | null }) {
  const { project } = useFrame();
  const listing = useListing('condition');
  const report = useCoverage(project).data;
  const standings = useMemo(() => new Map(report?.requirements.flatMap((r) => r.conditions).map((c) => [c.id, c.standings])), [report]);
  const { group } = listing.view;
  const look = useMemo<LineLook<'condition'>>(
    () => ({
      notes: ({ head, risk, depths = [], requirements = [] }) => [
        MODEL_WORD[head.model],
        ...(group === 'requirement' ? [] : [requirements.join(', ')]),
        ...(risk === 'high' || risk === 'low' ? [RISK_WORD[risk].toLowerCase()] : []),
        ...(head.state === 'draft' ? [] : [STATE_WORD[head.state].toLowerCase()]),
        ...depths,
      ],
      mark: ({ head }) => (
        <span className="max-w-28 shrink-0 pt-0.5">
          <Ticks conditions={[{ id: head.id, standings: standings.get(head.id) ?? [] }]} most={10} />
        </span>
      ),
      groupNote: (members) => itemsWord(members.reduce((n, { standings: s }) => n + (s === undefined ? 0 : s.gap + s.suspect), 0)),
    }),
    [group, standings],
  );
  return <ListPage kind="condition" listing={listing} current={current} heading={<ConditionsHeading all />} look={look} />;
}

function itemsWord(open: number): string {
  return open === 0 ? '' : countOf(open, 'gap');
}
