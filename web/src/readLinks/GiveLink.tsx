import { LIMITS } from '@caderno/contract';
import type { ArtefactId } from '@caderno/core/artefacts';
import { useState } from 'react';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, Dialog, ShownOnce, TextBox, Labelled } from '../look/index.ts';
import { ReadLinkLines } from './ReadLinkLines.tsx';
import { useReadLinks } from './useReadLinks.ts';

const DAYS = ['1', '7', '30', '90', '366'].map((days) => ({ value: days, name: days === '1' ? 'for a day' : days === '366' ? 'for a year' : `for ${days} days` }));

/** Gives a link by which whoever has it reads one artefact, without an account; shows those that were given. */
export function GiveLink({ id, onClose }: { readonly id: ArtefactId; readonly onClose: () => void }) {
  const { project } = useFrame();
  const { links = [], give, end } = useReadLinks(project);
  const [forWhom, setForWhom] = useState('');
  const [days, setDays] = useState('7');
  const [made, setMade] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const make = async (): Promise<void> => {
    setBusy(true);
    setMade(await give({ id, forWhom: forWhom.trim(), days: Number(days) }));
    setForWhom('');
    setBusy(false);
  };
  const given = links.filter((link) => link.of === id);
  return (
    <Dialog title={`A link to read ${id}`} onClose={onClose} keepsAtOnce>
      <form
        className="space-y-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (!busy) void make();
        }}
      >
        <p className="text-ink2">Whoever has the link reads {id} as it was saved last, opened to its last step, and nothing else of the project. They need no account. Attached files and secret values stay here.</p>
        <div className="flex flex-wrap items-end gap-3">
          <Labelled label="For whom" hint="as a note to yourselves" className="min-w-48 flex-1">
            <TextBox className="w-full" value={forWhom} maxLength={LIMITS.name} onChange={setForWhom} />
          </Labelled>
          <Choose label="How long" value={days} options={DAYS} onChange={setDays} />
          <Button type="submit" look="accent" disabled={busy}>
            Make the link
          </Button>
        </div>
        {made !== null && <ShownOnce words="This is the link. It is shown this once: copy it, and give it to whom it is for. They can pass it on." label={`The link to read ${id}`} value={made} />}
        {given.length > 0 && <h3 className="font-semibold">Links that open it</h3>}
        <ReadLinkLines project={project} links={given} ofOne onEnd={end} />
        <p className="text-right">
          <Button onClick={onClose}>Close</Button>
        </p>
      </form>
    </Dialog>
  );
}
