import type { ImportDraft } from '@caderno/contract';
import { useState } from 'react';
import { Choose, TextButton } from '../look/index.ts';

interface Props {
  readonly draft: Pick<ImportDraft, 'reading' | 'format' | 'sheets' | 'names'>;
  readonly onReread: (reading: ImportDraft['reading']) => void;
}

const ENCODING_OPTIONS = [{ value: 'guess', name: 'guessed' }, { value: 'utf-8', name: 'UTF-8' }, { value: 'utf-16le', name: 'UTF-16, little end' }, { value: 'utf-16be', name: 'UTF-16, big end' }, { value: 'windows-1252', name: 'Windows-1252' }] as const;
const SEPARATOR_OPTIONS = [{ value: 'guess', name: 'guessed' }, { value: ',', name: 'comma' }, { value: ';', name: 'semicolon' }, { value: '\t', name: 'tab' }, { value: '|', name: 'bar' }] as const;

/** How the file is read, where its own signs are not enough. */
export function ReadingChoices({ draft: { reading, format, sheets, names }, onReread }: Props) {
  const [open, setOpen] = useState(false);
  const read = (change: Partial<ImportDraft['reading']>): void => onReread({ ...reading, ...change });
  if (format === 'stories' || format === 'docx') return null;
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
