import { Menu, MenuButton } from '@headlessui/react';
import type { HandOffNumber } from '@caderno/core/handOffs';
import { HAND_OFF_FORMATS, type HandOffFormat } from '@caderno/contract';
import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { download, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { MenuChoices } from '../look/index.ts';

const FORMAT_WORD: Record<HandOffFormat, string> = {
  xlsx: 'Workbook to fill in (XLSX)',
  html: 'Page to tick, without a network (HTML)',
  csv: 'CSV',
  md: 'Markdown',
  json: 'JSON for a tool',
  schema: 'JSON Schema of that',
  features: 'Features as Gherkin (zip)',
};

interface Props {
  readonly number: HandOffNumber;
  /** Whose part; null: all of it. */
  readonly person: string | null;
  readonly hasScenarios: boolean;
}

/** Saves a hand-off, or somebody’s part of it, as a file. */
export function SaveHandOff({ number, person, hasScenarios }: Props) {
  const { project } = useFrame();
  const [busy, setBusy] = useState(false);
  const formats = HAND_OFF_FORMATS.filter((format) => (format !== 'features' || hasScenarios) && (format !== 'schema' || person === null));
  const save = (format: HandOffFormat): void => {
    setBusy(true);
    void download('exportHandOff', { params: { project, handOff: number }, query: { format, ...(person === null ? {} : { person }) } })
      .catch(tellFailure)
      .finally(() => setBusy(false));
  };
  const label = person === null ? 'Save as a file' : `Save the part of ${person === '' ? 'nobody' : person}`;
  return (
    <Menu>
      <MenuButton disabled={busy} aria-label={label} className={`inline-flex items-center gap-1 whitespace-nowrap rounded-panel border border-rule2 bg-page hover:bg-page2 disabled:opacity-60 print:hidden ${person === null ? 'h-8 px-3 text-sm font-semibold' : 'h-6 px-2 text-xs'}`}>
        {busy ? 'Writing …' : person === null ? label : 'Save'} <ChevronDown size={13} aria-hidden="true" />
      </MenuButton>
      <MenuChoices end="end" options={formats.map((format) => ({ value: format, name: FORMAT_WORD[format] }))} onPick={save} />
    </Menu>
  );
}
