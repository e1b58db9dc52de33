import type { RequirementId } from '@caderno/core/artefacts';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useSummaries } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Busy, Button, Dialog } from '../look/index.ts';

/** Takes a baseline of everything, or of what hangs on a requirement. */
export function TakeBaseline({ onClose }: { readonly onClose: () => void }) {
  const { project } = useFrame();
  const client = useQueryClient();
  const navigate = useNavigate();
  const requirements = (useSummaries(project, 'requirement').data ?? []).filter((r) => r.state !== 'withdrawn');
  const [name, setName] = useState('');
  const [note, setNote] = useState('');
  const [of, setOf] = useState<RequirementId | ''>('');
  const [busy, setBusy] = useState(false);
  // Sent again after an answer that never came, it is the same command: nobody has two.
  const [commandId] = useState(() => crypto.randomUUID());
  const take = async (): Promise<void> => {
    setBusy(true);
    try {
      const taken = await call('takeBaseline', { params: { project }, body: { name: name.trim(), note: note.trim(), of: of === '' ? { everything: true } : { requirement: of } } }, { commandId });
      await client.invalidateQueries({ queryKey: [project, 'baselines', 'all'] });
      toast.success(`B-${taken.number} is taken.`);
      onClose();
      await navigate(address.baselines(project, taken.number));
    } catch (error) {
      tellFailure(error);
      setBusy(false);
    }
  };
  return (
    <Dialog title="Take a baseline" onClose={onClose}>
      <form
        className="space-y-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (!busy && name.trim() !== '') void take();
        }}
      >
        <p className="text-ink2">It freezes what is saved now, in exact versions. It cannot be changed or taken back.</p>
        <label className="block">
          <span className="font-semibold">Name</span>
          <input className="field-boxed mt-0.5 w-full" maxLength={300} value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <label className="block">
          <span className="font-semibold">Of</span>
          <select className="field-boxed mt-0.5 block w-full" value={of} onChange={(event) => setOf(event.target.value as RequirementId | '')}>
            <option value="">everything</option>
            {requirements.map((r) => (
              <option key={r.id} value={r.id}>
                {r.id} {r.title}, with all that hangs on it
              </option>
            ))}
          </select>
        </label>
        <label className="block">
          <span className="font-semibold">Note</span> <span className="text-ink2">may stay empty</span>
          <textarea className="field-boxed mt-0.5 w-full" rows={2} maxLength={2000} value={note} onChange={(event) => setNote(event.target.value)} />
        </label>
        <div className="flex items-center justify-end gap-2">
          {busy && <Busy>Taking it …</Busy>}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={busy || name.trim() === ''}>
            Take it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
