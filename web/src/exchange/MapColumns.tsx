import { TARGETS, type SectionRows, type Target } from '@caderno/core/exchange';
import type { ImportDraft } from '@caderno/contract';
import { useState } from 'react';
import { Choose, Section, TextButton, countOf, options } from '../look/index.ts';
import { TARGET_WORD } from './targetWords.ts';

interface Props {
  readonly draft: ImportDraft;
  readonly onChange: (draft: ImportDraft) => void;
  readonly onReread: (draft: ImportDraft) => void;
}

const SECTION_WORD: Record<SectionRows, string> = { heading: 'are headings for the rows below', module: 'are the module of the rows below', rows: 'are requirements too' };

/** Targets that only our own files have; they are not offered where nothing was guessed as one. */
const SPECIAL: ReadonlySet<Target> = new Set<Target>(['ownId', 'version', 'facts']);

/** What each column of the file is: guessed, corrected by hand, remembered for the project. */
export function MapColumns({ draft, onChange, onReread }: Props) {
  const { mapping, columns } = draft;
  const aside = draft.remembered ? 'matched as last time' : 'guessed from their names; correct what is wrong';
  return (
    <Section title="What the columns are" aside={aside} actions={<ReadingChoices draft={draft} onReread={onReread} />}>
      <label className="mt-2 flex items-center gap-2 text-sm">
        Name of the source
        <input value={mapping.source} maxLength={100} list="known-sources" onChange={(e) => onChange({ ...draft, mapping: { ...mapping, source: e.target.value } })} className="field-boxed w-64" />
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
          <Choose label="Rows with one text are" value={mapping.sections ?? 'heading'} options={options(SECTION_WORD)} onChange={(sections) => onChange({ ...draft, mapping: { ...mapping, sections } })} />
        </p>
      )}
      <table className="mt-2 w-full text-sm">
        <thead>
          <tr className="text-left text-xs text-ink2">
            <th className="w-1/4 py-1 font-normal">Column</th>
            <th className="w-1/4 py-1 font-normal">is</th>
            <th className="py-1 font-normal">such as</th>
          </tr>
        </thead>
        <tbody>
          {columns.filter(({ name }) => mapping.columns[name] !== 'facts').map(({ name, examples }) => (
            <tr key={name} className="border-b border-rule">
              <td className="py-1 pr-3 font-medium">{name}</td>
              <td className="py-1 pr-3">
                <Choose
                  label={`${name} is`}
                  value={mapping.columns[name] ?? 'leave'}
                  options={TARGETS.filter((t) => !SPECIAL.has(t) || t === mapping.columns[name]).map((value) => ({ value, name: TARGET_WORD[value] }))}
                  onChange={(target) => onChange({ ...draft, mapping: { ...mapping, columns: { ...mapping.columns, [name]: target } } })}
                />
              </td>
              <td className="max-w-0 truncate py-1 text-ink2" title={examples.join(' · ')}>
                {examples.join(' · ')}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Section>
  );
}

const ENCODING_OPTIONS = [{ value: 'guess', name: 'guessed' }, { value: 'utf-8', name: 'UTF-8' }, { value: 'utf-16le', name: 'UTF-16, little end' }, { value: 'utf-16be', name: 'UTF-16, big end' }, { value: 'windows-1252', name: 'Windows-1252' }] as const;
const SEPARATOR_OPTIONS = [{ value: 'guess', name: 'guessed' }, { value: ',', name: 'comma' }, { value: ';', name: 'semicolon' }, { value: '\t', name: 'tab' }, { value: '|', name: 'bar' }] as const;

/** How the file is read, where its own signs are not enough. */
function ReadingChoices({ draft, onReread }: Omit<Props, 'onChange'>) {
  const [open, setOpen] = useState(false);
  const { reading, format, sheets, names } = draft;
  const read = (change: Partial<ImportDraft['reading']>): void => onReread({ ...draft, reading: { ...reading, ...change } });
  if (format === 'stories') return null;
  return (
    <>
      {names !== null && <Choose label="Row of names" showLabel value={String(names.header)} options={[...names.rows.map((row, i) => ({ value: String(i + 1), name: `${i + 1}: ${row}` })), { value: '0', name: 'none' }]} onChange={(header) => read({ header: Number(header) })} />}
      {sheets.length > 1 && <Choose label="Sheet" showLabel value={reading.sheet ?? sheets[0] ?? ''} options={sheets.map((value) => ({ value, name: value }))} onChange={(sheet) => read({ sheet, header: null })} />}
      {open && format !== 'xlsx' && (
        <Choose label="Encoding" showLabel value={reading.encoding ?? 'guess'} options={[...ENCODING_OPTIONS]} onChange={(encoding) => read({ encoding: encoding === 'guess' ? null : encoding })} />
      )}
      {open && format === 'csv' && (
        <Choose label="Separator" showLabel value={reading.separator ?? 'guess'} options={[...SEPARATOR_OPTIONS]} onChange={(separator) => read({ separator: separator === 'guess' ? null : separator })} />
      )}
      {!open && format !== 'xlsx' && <TextButton onClick={() => setOpen(true)}>Read it differently</TextButton>}
    </>
  );
}
