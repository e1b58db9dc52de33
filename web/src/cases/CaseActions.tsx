import type { CaseId } from '@caderno/core/artefacts';
import { useState } from 'react';
import { Link } from 'react-router';
import { tellFailure } from '../api/index.ts';
import { readMany } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { ExportCases } from '../files/index.ts';
import { TextButton, countOf } from '../look/index.ts';
import { CloneDialog, MOST_PREVIEWED, type CaseAt } from './CloneDialog.tsx';
import { MergeDialog } from './MergeDialog.tsx';

interface Props {
  readonly chosen: readonly CaseId[];
  readonly onDone: () => void;
}

interface Open {
  readonly kind: 'clone' | 'merge';
  readonly cases: readonly CaseAt[];
}

/** What only cases can be asked for when some are selected: read through, cloned, two of them merged. */
export function CaseActions({ chosen, onDone }: Props) {
  const { project, canEdit } = useFrame();
  const [open, setOpen] = useState<Open | null>(null);
  const [exporting, setExporting] = useState(false);
  const read = async (kind: Open['kind']): Promise<void> => {
    try {
      // A few are enough to see what a clone makes; the server makes all of them.
      const cases = await readMany(project, 'case', chosen.slice(0, MOST_PREVIEWED));
      setOpen({ kind, cases: cases.map(({ summary: { id, version }, content }) => ({ id, version, content })) });
    } catch (error) {
      tellFailure(error);
    }
  };
  const [first, second] = open?.kind === 'merge' ? open.cases : [];
  return (
    <>
      <Link className="underline decoration-rule2" to={{ pathname: chosen.length === 1 && chosen[0] !== undefined ? address.reading(project, chosen[0]) : address.readingSelection(project), search: `cases=${chosen.join(',')}` }}>
        Read through
      </Link>
      <TextButton onClick={() => setExporting(true)}>Export</TextButton>
      {canEdit && <TextButton onClick={() => void read('clone')}>Clone</TextButton>}
      {canEdit && chosen.length === 2 && <TextButton onClick={() => void read('merge')}>Merge</TextButton>}
      {exporting && <ExportCases of={{ ids: chosen.map((id) => id) }} words={countOf(chosen.length, 'case')} onClose={() => setExporting(false)} />}
      {open?.kind === 'clone' && <CloneDialog all={chosen} cases={open.cases} onClose={() => setOpen(null)} onDone={onDone} />}
      {first !== undefined && second !== undefined && <MergeDialog kept={first} gone={second.id} onClose={() => (setOpen(null), onDone())} />}
    </>
  );
}
