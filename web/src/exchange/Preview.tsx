import type { ArtefactId } from '@caderno/core/artefacts';
import { idInSource } from '@caderno/core/basis';
import { conflictKey, type ConflictChoice } from '@caderno/core/exchange';
import type { Side } from '@caderno/core/versions';
import { Link } from 'react-router';
import type { ImportDraft, ImportPreview } from '@caderno/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { call, failureSentence, useSettings } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Section, TextButton, countOf, locale } from '../look/index.ts';
import { Problems } from './Problems.tsx';
import { PlannedChangeLine } from './PlannedChangeLine.tsx';
import { RunImport } from './RunImport.tsx';
import { fieldWord } from './targetWords.ts';

type Choices = Readonly<Record<string, ConflictChoice>>;

interface Props {
  readonly draft: ImportDraft;
  /** Takes the file for a known source. */
  readonly onSource: (name: string) => void;
  readonly onDone: (first: ArtefactId | null) => void;
}

/** What the import would do: problems first, then what is added, changed and left alone. */
export function Preview({ draft, onSource, onDone }: Props) {
  const { project } = useFrame();
  const step = useDeferredValue(draft);
  const [choices, setChoices] = useState<Choices>({});
  const preview = useQuery({
    queryKey: [project, 'list', 'import', step.id, step.mapping, step.reading],
    queryFn: ({ signal }) => call('previewImport', { params: { project, import: step.id }, body: { mapping: step.mapping, reading: step.reading } }, { signal }),
    placeholderData: keepPreviousData,
    enabled: step.mapping.source.trim() !== '',
  });
  if (preview.error !== null) return <p className="mt-4 rounded-field bg-brick-wash px-3 py-2">{failureSentence(preview.error)}</p>;
  if (preview.data === undefined) return <p role="status" className="mt-4 text-ink2">Comparing with the project …</p>;
  const { counts } = preview.data;
  const open = counts.conflicts - preview.data.changed.reduce((n, c) => n + c.conflicts.filter((f) => choices[conflictKey(c.id, f.field)] !== undefined).length, 0);
  return (
    <div className={preview.isPlaceholderData ? 'opacity-60' : ''}>
      <Section title="What it would do" aside={<Counts preview={preview.data} />} actions={<RunImport id={draft.id} run={(commandId) => call('runImport', { params: { project, import: draft.id }, body: { mapping: draft.mapping, reading: draft.reading, choices } }, { commandId })} open={open} nothing={counts.added + counts.changed === 0} unnamed={draft.mapping.source.trim() === ''} onDone={onDone} />}>
        <HereAlready preview={preview.data} draft={draft} onSource={onSource} />
        <Problems preview={preview.data} places={draft.format === 'docx' ? 'paragraph' : 'line'} />
        <Changed preview={preview.data} choices={choices} onChoose={setChoices} />
        <Added preview={preview.data} />
        {counts.gone > 0 && (
          <p className="mt-3 text-sm">
            <b className="font-semibold">{countOf(counts.gone, 'requirement')}</b> came from this source before and {counts.gone === 1 ? 'is' : 'are'} no longer in it: <span className="font-mono text-xs">{preview.data.gone.slice(0, 30).join(', ')}</span>. They are left alone; withdraw what no longer holds.
          </p>
        )}
      </Section>
    </div>
  );
}

function Counts({ preview: { counts } }: { readonly preview: ImportPreview }) {
  return (
    <>
      {counts.added} added · {counts.changed} changed · {counts.same} as they are{counts.errors > 0 && <span className="text-brick"> · {countOf(counts.errors, 'error')}</span>}
      {counts.warnings > 0 && <span className="text-ochre-ink"> · {countOf(counts.warnings, 'warning')}</span>}
    </>
  );
}

/** Before doubles are made: what would be added and seems to be here. */
function HereAlready({ preview: { here }, draft, onSource }: { readonly preview: ImportPreview; readonly draft: ImportDraft; readonly onSource: (name: string) => void }) {
  const { project } = useFrame();
  if (here.ids.length === 0 && here.titles === 0) return null;
  return (
    <div role="status" className="mt-3 rounded-field bg-ochre-wash px-3 py-2 text-sm text-ochre-ink">
      {here.ids.map(({ source, count }) => (
        <p key={source}>
          {count === 1 ? '1 id is' : `${count.toLocaleString(locale())} ids are`} here already, from the source “{source}”.{' '}
          {draft.mapping.source !== source && <TextButton onClick={() => onSource(source)}>Update “{source}” instead</TextButton>}
        </p>
      ))}
      {here.titles > 0 && <p>{here.titles === 1 ? '1 title is' : `${here.titles.toLocaleString(locale())} titles are`} here already.</p>}
      <p className="text-xs">
        Such as{' '}
        {here.examples.map(({ key, title, id }, i) => (
          <span key={key}>
            {i > 0 && ', '}
            “{title}” (
            <Link className="font-mono underline" to={address.basis(project, id)} target="_blank">
              {id}
            </Link>
            )
          </span>
        ))}
        . Imported as they are, they would be there twice.
      </p>
    </div>
  );
}

interface ChangedProps {
  readonly preview: ImportPreview;
  readonly choices: Choices;
  readonly onChoose: (choices: Choices) => void;
}

function Changed({ preview: { changed, counts }, choices, onChoose }: ChangedProps) {
  const { project } = useFrame();
  const fields = useSettings(project).data?.settings.fields ?? [];
  if (changed.length === 0) return null;
  const chooseAll = (side: Side): void => onChoose(Object.fromEntries(changed.flatMap((c) => c.conflicts.map((f) => [conflictKey(c.id, f.field), side]))));
  return (
    <section className="mt-4" aria-label="Changed requirements">
      <h4 className="flex items-baseline gap-3 text-sm font-semibold">
        Changed
        {counts.conflicts > 0 && (
          <span className="text-xs font-normal text-ink2">
            {countOf(counts.conflicts, 'value')} changed both in the file and here; choose for each, or <TextButton onClick={() => chooseAll('mine')}>keep all of the project’s</TextButton> or{' '}
            <TextButton onClick={() => chooseAll('theirs')}>take all of the file’s</TextButton>
          </span>
        )}
      </h4>
      <ul>
        {changed.map((change) => (
          <PlannedChangeLine key={change.id} change={change} wordOf={(field) => fieldWord(field, fields)} keyOf={(field) => conflictKey(change.id, field)} choices={choices} onChoose={(key, side) => onChoose({ ...choices, [key]: side })} />
        ))}
      </ul>
      {counts.changed > changed.length && <p className="mt-1 text-xs text-ink2">The first {changed.length} of {counts.changed}.</p>}
    </section>
  );
}

function Added({ preview: { added, counts } }: { readonly preview: ImportPreview }) {
  const [all, setAll] = useState(false);
  if (added.length === 0) return null;
  const shown = all ? added : added.slice(0, 12);
  return (
    <section className="mt-4" aria-label="Added requirements">
      <h4 className="text-sm font-semibold">Added</h4>
      <ul className="text-sm">
        {shown.map((entry) => (
          <li key={entry.key} className="grid grid-cols-[120px_minmax(160px,1fr)_2fr] gap-x-3 border-b border-rule py-1">
            <span className="truncate font-mono text-xs leading-5 text-ink2" title={idInSource(entry.key)}>
              {idInSource(entry.key) || 'heading'}
            </span>
            <span className="truncate">{entry.title}</span>
            <span className="truncate text-ink2">{entry.text}</span>
          </li>
        ))}
      </ul>
      {!all && counts.added > shown.length && (
        <TextButton className="mt-1 text-sm" onClick={() => setAll(true)}>
          {counts.added > added.length ? `the first ${added.length} of ${counts.added}` : `all ${counts.added}`}
        </TextButton>
      )}
    </section>
  );
}
