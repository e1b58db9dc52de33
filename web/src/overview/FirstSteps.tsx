import { useState } from 'react';
import { Link } from 'react-router';
import { useCoverage, useFigures, useSummaries } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton } from '../look/index.ts';

/** The way through the first ten minutes on one's own material; gone once walked, or when it is not wanted. */
export function FirstSteps() {
  const { project, canEdit } = useFrame();
  const figures = useFigures(project);
  const report = useCoverage(project).data;
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const conditions = useSummaries(project, 'condition').data ?? [];
  const kept = `caderno-first-steps-${project}`;
  const [hidden, setHidden] = useState(() => localStorage.getItem(kept) === 'hidden');
  if (!canEdit || hidden || figures === undefined || report === undefined || report.counts.shown > 0) return null;
  const first = requirements.find((r) => r.type !== 'heading' && r.state !== 'withdrawn')?.id;
  const firstCondition = conditions[0]?.id;
  const steps = [
    { done: figures.requirements > 0, title: 'Bring in your requirements', text: 'A workbook, a DOCX, CSV, Markdown or ReqIF file, or write the first one by hand.', to: address.importing(project), word: 'Import a file' },
    { done: figures.conditions > 0, title: 'Mark the first condition', text: 'Open a requirement and mark words that can be tested: a condition hangs on them. Say how it is to be exercised.', to: first === undefined ? null : address.conditions(project, first), word: 'Open a requirement' },
    { done: figures.cases > 0, title: 'Write the first case', text: 'On the condition choose Write cases: rows and steps are proposed, and you say what is expected.', to: firstCondition === undefined ? null : address.condition(project, firstCondition), word: 'Open the condition' },
    { done: false, title: 'See the first number', text: 'An item is shown once somebody could tell from an expected result whether it passes. The Coverage chapter says how much is.', to: figures.cases > 0 ? address.coverage(project) : null, word: 'Open Coverage' },
  ];
  const next = steps.findIndex((s) => !s.done);
  const hide = (): void => {
    localStorage.setItem(kept, 'hidden');
    setHidden(true);
  };
  return (
    <section aria-label="First steps" className="mt-5 rounded-[8px] border border-rule2 bg-page2 px-5 py-4">
      <div className="flex items-baseline gap-3">
        <h2 className="font-serif text-lg font-semibold">The first ten minutes</h2>
        <TextButton className="ml-auto text-xs text-ink2" onClick={hide}>
          Hide
        </TextButton>
      </div>
      <ol className="mt-2 space-y-2">
        {steps.map(({ done, title, text, to, word }, i) => (
          <li key={title} className="flex gap-3">
            <span className={`mt-0.5 grid size-6 shrink-0 place-items-center rounded-full text-xs font-semibold ${done ? 'bg-pine-wash text-pine' : i === next ? 'bg-blue text-on-accent' : 'border border-rule2 text-ink2'}`} aria-hidden="true">
              {done ? '✓' : i + 1}
            </span>
            <span className="min-w-0 flex-1">
              <span className="block font-semibold">
                {title}
                {done && <span className="sr-only">, done</span>}
              </span>
              {i === next && <span className="block text-sm text-ink2">{text}</span>}
            </span>
            {i === next && to !== null && (
              <Link to={to} className="self-center whitespace-nowrap rounded-panel border border-blue px-3 py-1.5 text-sm font-semibold text-blue">
                {word}
              </Link>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
