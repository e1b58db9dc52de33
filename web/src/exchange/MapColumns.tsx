import type { SectionRows, Target } from '@caderno/core/exchange';
import type { ImportDraft } from '@caderno/contract';
import { useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Choose, Section, countOf, options, TextBox } from '../look/index.ts';
import { ColumnTable } from './ColumnTable.tsx';
import { ReadingChoices } from './ReadingChoices.tsx';
import { targetOptions } from './targetWords.ts';

interface Props {
  readonly draft: ImportDraft;
  readonly onMapping: (part: Partial<ImportDraft['mapping']>) => void;
  readonly onColumn: (name: string, target: Target) => void;
  readonly onReread: (draft: ImportDraft) => void;
}

const SECTION_WORD: Record<SectionRows, string> = { heading: 'are headings for the rows below', module: 'are the module of the rows below', rows: 'are requirements too' };

/** What each column of the file is: guessed, corrected by hand, remembered for the project. */
export function MapColumns({ draft, onMapping, onColumn, onReread }: Props) {
  const { mapping, columns } = draft;
  const { project } = useFrame();
  const fields = useSettings(project).data?.settings.fields ?? [];
  const aside = draft.remembered ? 'matched as last time' : 'guessed from their names; correct what is wrong';
  return (
    <Section title="What the columns are" aside={aside} actions={<ReadingChoices draft={draft} onReread={(reading) => onReread({ ...draft, reading })} />}>
      <label className="mt-2 flex items-center gap-2 text-sm">
        Name of the source
        <TextBox value={mapping.source} maxLength={100} list="known-sources" onChange={(text) => onMapping({ source: text })} className="w-64" />
        <datalist id="known-sources">
          {draft.sources.map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
        <span className="text-xs text-ink2">{draft.sources.includes(mapping.source) ? 'known: it updates by its ids' : draft.sources.length === 0 ? 'the same source again updates by its ids instead of doubling' : 'a new source; take a known one to update what came from it'}</span>
      </label>
      {draft.sections > 0 && (
        <p className="mt-2 flex items-center gap-2 text-sm">
          {countOf(draft.sections, 'row')} with one text only
          <Choose label="Rows with one text are" value={mapping.sections ?? 'heading'} options={options(SECTION_WORD)} onChange={(sections) => onMapping({ sections })} />
        </p>
      )}
      <ColumnTable<Target>
        kind="requirement"
        columns={columns.filter(({ name }) => mapping.columns[name] !== 'facts')}
        targetOf={(name) => mapping.columns[name] ?? 'leave'}
        optionsOf={(name) => targetOptions(mapping.columns[name] ?? 'leave', fields)}
        onTarget={onColumn}
      />
    </Section>
  );
}
