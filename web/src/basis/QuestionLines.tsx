import type { RequirementId } from '@caderno/core/artefacts';
import { Link } from 'react-router';
import { useCoverageRows, useSummaries } from '../api/index.ts';
import { MarginNote } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';

/** The questions about a requirement, in the margin. */
export function QuestionLines({ id }: { readonly id: RequirementId }) {
  const { project } = useFrame();
  const questions = (useSummaries(project, 'question').data ?? []).filter((q) => q.about.includes(id) && q.status !== 'withdrawn');
  const known = useCoverageRows(project);
  if (questions.length === 0) return null;
  return (
    <MarginNote title="Questions">
      <ul className="space-y-1.5 py-1">
        {questions.map((q) => (
          <li key={q.id}>
            <Link to={address.questions(project, q.id)} className="hover:underline">
              <span className="font-mono">{q.id}</span> {q.title}
            </Link>
            <span className={`block ${q.status === 'open' ? 'text-plum' : 'text-pine'}`}>{q.status === 'open' ? `open, holds up ${known?.heldUp(q.id) ?? 0}` : 'answered'}</span>
          </li>
        ))}
      </ul>
    </MarginNote>
  );
}
