import type { QuestionSubject } from '@caderno/core/basis';
import { conditionIdSchema, requirementIdSchema } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton, countOf, Tick, TextBox } from '../look/index.ts';

interface Props {
  readonly about: readonly QuestionSubject[];
  readonly canEdit: boolean;
  readonly onChange: (about: readonly QuestionSubject[]) => void;
}

/** What a question is about, and whether coverage waits there for the answer. */
export function Subjects({ about, canEdit, onChange }: Props) {
  const { project } = useFrame();
  const titles = useTitles(project);
  const put = (subject: QuestionSubject): void => onChange(about.map((s) => (s.id === subject.id ? subject : s)));
  return (
    <>
      {about.length === 0 && <p>The project as a whole. It holds up nothing.</p>}
      <ul className="space-y-2 py-1">
        {about.map((subject) => (
          <li key={subject.id}>
            <Link className="hover:underline" to={address.artefact(project, subject.id)}>
              <span className="font-mono">{subject.id}</span> {titles.get(subject.id)}
            </Link>
            {subject.kind === 'requirement' && subject.words !== '' && <span className="block italic">“{subject.words}”</span>}
            {subject.kind === 'condition' && subject.items.length > 0 && <span className="block">{countOf(subject.items.length, 'item')} of it</span>}
            <Tick checked={subject.holds} disabled={!canEdit} onChange={(ticked) => put({ ...subject, holds: ticked })}>
              {subject.kind === 'requirement' ? 'all its conditions wait' : 'it waits'}
              {canEdit && (
                <TextButton className="ml-auto" aria-label={`Take ${subject.id} out`} onClick={() => onChange(about.filter((s) => s.id !== subject.id))}>
                  take out
                </TextButton>
              )}
            </Tick>
          </li>
        ))}
      </ul>
      {canEdit && <AddSubject known={titles} onAdd={(subject) => onChange([...about.filter((s) => s.id !== subject.id), subject])} />}
    </>
  );
}

function useTitles(project: string): ReadonlyMap<string, string> {
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const conditions = useSummaries(project, 'condition').data ?? [];
  return new Map([...requirements, ...conditions].map((s) => [s.id, s.title]));
}

function AddSubject({ known, onAdd }: { readonly known: ReadonlyMap<string, string>; readonly onAdd: (subject: QuestionSubject) => void }) {
  const [text, setText] = useState('');
  const subject = subjectOf(text.trim().toUpperCase());
  const unknown = subject !== null && !known.has(subject.id);
  return (
    <form
      className="flex gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        if (subject === null || unknown) return;
        onAdd(subject);
        setText('');
      }}
    >
      <TextBox aria-label="Id of a requirement or condition it is about" placeholder="R-… or K-…" value={text} aria-invalid={unknown} onChange={setText} className="w-24 !min-h-chip !py-0.5 font-mono" />
      <TextButton type="submit" disabled={subject === null || unknown}>
        add
      </TextButton>
    </form>
  );
}

function subjectOf(id: string): QuestionSubject | null {
  const requirement = requirementIdSchema.safeParse(id);
  if (requirement.success) return { kind: 'requirement', id: requirement.data, words: '', holds: true };
  const condition = conditionIdSchema.safeParse(id);
  return condition.success ? { kind: 'condition', id: condition.data, items: [], holds: true } : null;
}
