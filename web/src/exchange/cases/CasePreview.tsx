import type { ArtefactId } from '@caderno/core/artefacts';
import { caseConflictKey } from '@caderno/core/caseFiles';
import type { ConflictChoice } from '@caderno/core/exchange';
import type { Side } from '@caderno/core/versions';
import type { CaseDraft, CasePreview as Planned } from '@caderno/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { call, failureSentence, useOwnFields } from '../../api/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Section, TextButton, countOf, locale } from '../../look/index.ts';
import { PlannedChangeLine } from '../PlannedChangeLine.tsx';
import { Problems } from '../Problems.tsx';
import { RunImport } from '../RunImport.tsx';
import { caseFieldWord } from './caseTargetWords.ts';

type Choices = Readonly<Record<string, ConflictChoice>>;

/** What the import of cases would do: problems first, then what is changed, added and left alone. */
export function CasePreview({ draft, onDone }: { readonly draft: CaseDraft; readonly onDone: (first: ArtefactId | null) => void }) {
  const { project } = useFrame();
  const step = useDeferredValue(draft);
  const [choices, setChoices] = useState<Choices>({});
  const preview = useQuery({
    queryKey: [project, 'list', 'import', step.id, step.mapping, step.reading],
    queryFn: ({ signal }) => call('previewCases', { params: { project, import: step.id }, body: { mapping: step.mapping, reading: step.reading } }, { signal }),
    placeholderData: keepPreviousData,
    enabled: step.mapping.source.trim() !== '',
  });
  if (preview.error !== null) return <p className="mt-4 rounded-field bg-brick-wash px-3 py-2">{failureSentence(preview.error)}</p>;
  if (preview.data === undefined) return <p role="status" className="mt-4 text-ink2">Comparing with the project …</p>;
  const { counts, changed, gone } = preview.data;
  const open = counts.conflicts - changed.reduce((n, c) => n + c.conflicts.filter((f) => choices[caseConflictKey(c.id, f.field)] !== undefined).length, 0);
  const run = (commandId: string) => call('runCases', { params: { project, import: draft.id }, body: { mapping: draft.mapping, reading: draft.reading, choices } }, { commandId });
  return (
    <div className={preview.isPlaceholderData ? 'opacity-60' : ''}>
      <Section title="What it would do" aside={<Counts counts={counts} />} actions={<RunImport id={draft.id} run={run} open={open} nothing={counts.added + counts.changed === 0} unnamed={draft.mapping.source.trim() === ''} onDone={onDone} />}>
        {counts.titles > 0 && <p className="mt-3 rounded-field bg-ochre-wash px-3 py-2 text-sm text-ochre-ink">{counts.titles === 1 ? 'A case' : `${counts.titles.toLocaleString(locale())} cases`} with the same title as one that would be added {counts.titles === 1 ? 'is' : 'are'} here already. Imported as it is, it would be there twice.</p>}
        {counts.conditions > 0 && <p className="mt-3 text-sm text-ink2">{countOf(counts.conditions, 'requirement')} named in it {counts.conditions === 1 ? 'has' : 'have'} no condition yet: a plain one is made for each, so that the cases can be linked.</p>}
        <Problems preview={preview.data} />
        <Changed changed={changed} counts={counts} choices={choices} onChoose={setChoices} />
        <Added preview={preview.data} />
        {counts.gone > 0 && (
          <p className="mt-3 text-sm">
            <b className="font-semibold">{countOf(counts.gone, 'case')}</b> came from this source before and {counts.gone === 1 ? 'is' : 'are'} no longer in it: <span className="font-mono text-xs">{gone.slice(0, 30).join(', ')}</span>. They are left alone; withdraw what no longer holds.
          </p>
        )}
      </Section>
    </div>
  );
}

function Counts({ counts }: Pick<Planned, 'counts'>) {
  return (
    <>
      {counts.added.toLocaleString(locale())} added with {countOf(counts.steps, 'step')} · {counts.changed.toLocaleString(locale())} changed · {counts.same.toLocaleString(locale())} as they are{counts.errors > 0 && <span className="text-brick"> · {countOf(counts.errors, 'error')}</span>}
      {counts.warnings > 0 && <span className="text-ochre-ink"> · {countOf(counts.warnings, 'warning')}</span>}
    </>
  );
}

interface ChangedProps extends Pick<Planned, 'changed' | 'counts'> {
  readonly choices: Choices;
  readonly onChoose: (choices: Choices) => void;
}

function Changed({ changed, counts, choices, onChoose }: ChangedProps) {
  const fields = useOwnFields(useFrame().project);
  if (changed.length === 0) return null;
  const chooseAll = (side: Side): void => onChoose(Object.fromEntries(changed.flatMap((c) => c.conflicts.map((f) => [caseConflictKey(c.id, f.field), side]))));
  return (
    <section className="mt-4" aria-label="Changed cases">
      <h4 className="flex items-baseline gap-3 text-sm font-semibold">
        Changed
        {counts.conflicts > 0 && (
          <span className="text-xs font-normal text-ink2">
            {countOf(counts.conflicts, 'value')} changed both in the file and here; choose for each, or <TextButton onClick={() => chooseAll('mine')}>keep all of the project’s</TextButton> or <TextButton onClick={() => chooseAll('theirs')}>take all of the file’s</TextButton>
          </span>
        )}
      </h4>
      <ul>
        {changed.map((change) => (
          <PlannedChangeLine key={change.id} change={change} wordOf={(field) => caseFieldWord(field, fields)} keyOf={(field) => caseConflictKey(change.id, field)} choices={choices} onChoose={(key, choice) => onChoose({ ...choices, [key]: choice })} />
        ))}
      </ul>
      {counts.changed > changed.length && <p className="mt-1 text-xs text-ink2">The first {changed.length} of {counts.changed.toLocaleString(locale())}.</p>}
    </section>
  );
}

const FEW = 12;

function Added({ preview: { added, counts } }: { readonly preview: Planned }) {
  const [all, setAll] = useState(false);
  if (added.length === 0) return null;
  const shown = all ? added : added.slice(0, FEW);
  return (
    <section className="mt-4" aria-label="Added cases">
      <h4 className="text-sm font-semibold">Added</h4>
      <ul className="text-sm">
        {shown.map(({ line, title, module, steps, firstStep, parameters }) => (
          <li key={line} className="grid grid-cols-[4rem_minmax(160px,1.4fr)_8rem_2fr] items-baseline gap-x-3 border-b border-rule py-1">
            <span className="text-xs text-ink2">line {line}</span>
            <span className="min-w-0">
              <span className="block truncate" title={title}>{title}</span>
              {parameters.length > 0 && <span className="block truncate font-mono text-xs text-ink2">{parameters.map((name) => `<${name}>`).join(' ')}</span>}
            </span>
            <span className="truncate text-xs text-ink2" title={module}>{module}</span>
            <span className="truncate text-ink2" title={firstStep}>
              {countOf(steps, 'step')}
              {firstStep !== '' && `: ${firstStep}`}
            </span>
          </li>
        ))}
      </ul>
      {!all && counts.added > shown.length && (
        <TextButton className="mt-1 text-sm" onClick={() => setAll(true)}>
          {counts.added > added.length ? `the first ${added.length} of ${counts.added.toLocaleString(locale())}` : `all ${counts.added}`}
        </TextButton>
      )}
    </section>
  );
}
