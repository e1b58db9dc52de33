import type { CaseContent } from '@caderno/core/cases';
import { sharedRows, withDataSet, withRowsShared } from '@caderno/core/dataSets';
import { dataSetIdSchema } from '@caderno/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, tellFailure, useSummaries } from '../api/index.ts';
import { PickArtefact, useCreate } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, countOf, TextBox, Labelled } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';

interface Props {
  readonly content: CaseContent;
  readonly update: Editing<CaseContent>['update'];
}

/** The ways between rows of a case's own and rows that many cases take: take those of a data set, or make a data set of one's own. */
export function ShareRows({ content, update }: Props) {
  const { project } = useFrame();
  const [sharing, setSharing] = useState(false);
  const sets = useSummaries(project, 'dataSet').data ?? [];
  const offered = sets.filter((s) => s.state !== 'withdrawn').map((s) => ({ id: s.id, title: s.title, aside: countOf(s.rows, 'row') }));
  const take = async (id: (typeof offered)[number]['id']): Promise<void> => {
    try {
      const set = await call('readArtefact', { params: { project, id } });
      if (set.kind !== 'dataSet') return;
      const spare = set.content.parameters.map(() => crypto.randomUUID().slice(0, 8));
      let used = 0;
      update((c) => {
        used = 0;
        return withDataSet(c, { id, content: set.content }, () => spare[used++] ?? '');
      });
    } catch (error) {
      tellFailure(error);
    }
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-3 text-xs text-ink2">
      {offered.length > 0 && <PickArtefact label="Rows of a data set to take" placeholder="take rows of a data set …" offered={offered} onPick={(id) => void take(id)} className="!h-7 !w-56 !text-xs" />}
      {content.rows.length > 0 && <TextButton onClick={() => setSharing(true)}>share these rows</TextButton>}
      {sharing && <ShareDialog content={content} update={update} onClose={() => setSharing(false)} />}
    </div>
  );
}

function ShareDialog({ content, update, onClose }: Props & { readonly onClose: () => void }) {
  const { project } = useFrame();
  const create = useCreate(project);
  const [title, setTitle] = useState(content.title);
  const set = sharedRows(content, title.trim());
  const share = async (): Promise<void> => {
    const made = dataSetIdSchema.safeParse(await create({ kind: 'dataSet', content: set }));
    if (!made.success) return;
    update((c) => withRowsShared(c, { id: made.data, content: set }));
    toast.success(`${made.data} holds the rows now. Save the case to take them from there.`);
    onClose();
  };
  return (
    <Dialog title="Share these rows" onClose={onClose}>
      <Labelled label="Title of the data set" className="text-sm">
        <TextBox autoFocus value={title} maxLength={300} onChange={setTitle} className="w-full" />
      </Labelled>
      <p className="mt-2 text-sm text-ink2">
        {countOf(set.rows.length, 'row')} with {set.parameters.map((p) => `<${p.name}>`).join(', ') || 'no columns'}
        {set.serves.length > 0 && `, typed by ${set.serves.map((s) => s.id).join(', ')}`}. This case takes its rows from there, and so may others.
      </p>
      <div className="mt-4 flex gap-3">
        <Button look="accent" disabled={title.trim() === ''} onClick={() => void share()}>
          Share {countOf(set.rows.length, 'row')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}
