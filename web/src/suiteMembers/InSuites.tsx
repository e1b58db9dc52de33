import { parseScenarioId, type CaseId, type FeatureId } from '@caderno/core/artefacts';
import type { SuiteOf } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { MarginNote } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton } from '../look/index.ts';
import { useSuitesOf } from './useSuitesOf.ts';

const MOST_SHOWN = 6;

/** The suites that a case, or scenarios of a feature, are in; nothing where there are none. */
export function InSuites({ id }: { readonly id: CaseId | FeatureId }) {
  const { project } = useFrame();
  const suites = useSuitesOf(project, id);
  const [all, setAll] = useState(false);
  if (suites.length === 0) return null;
  return (
    <MarginNote title="In suites">
      <ul>
        {suites.slice(0, all ? suites.length : MOST_SHOWN).map((suite) => (
          <li key={suite.id} className="flex gap-1.5 py-0.5 leading-6">
            <Link className="h-6 shrink-0 font-mono underline decoration-rule2" to={address.artefact(project, suite.id)}>
              {suite.id}
            </Link>
            <span className="min-w-0">
              <span className="text-ink">{suite.title}</span> {notes(suite)}
            </span>
          </li>
        ))}
      </ul>
      {suites.length > MOST_SHOWN && !all && <TextButton onClick={() => setAll(true)}>and {suites.length - MOST_SHOWN} more</TextButton>}
    </MarginNote>
  );
}

/** Which scenarios of a feature, what a member stays with, and whether a rule keeps it there. */
function notes({ members }: SuiteOf): string {
  const scenarios = members.flatMap(({ of }) => parseScenarioId(of)?.number ?? []);
  const pins = [...new Set(members.map((m) => (m.pinned === null ? '' : m.pinned === 'agreed' ? 'as agreed last' : `v${m.pinned}`)))].filter(Boolean);
  return [scenarios.map((n) => `/${n}`).join(' '), ...pins, members.every((m) => m.byRule) ? 'by a rule' : ''].filter(Boolean).join(', ');
}
