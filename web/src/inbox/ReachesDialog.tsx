import { INBOX_REASONS, type InboxReason } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { call, failureSentence, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog } from '../look/index.ts';
import { REASON_WORD } from './entryWords.ts';

/** Chooses what reaches one from now on; each choice counts at once. */
export function ReachesDialog({ onClose }: { readonly onClose: () => void }) {
  const { project } = useFrame();
  const client = useQueryClient();
  const queryKey = [project, 'inbox', 'choices'];
  const { data, error } = useQuery({ queryKey, queryFn: () => call('readInboxChoices', { params: { project } }) });
  const choose = async (silent: InboxReason[]): Promise<void> => {
    // Seen at once, so that the next choice is made on it.
    client.setQueryData(queryKey, { silent });
    try {
      client.setQueryData(queryKey, await call('saveInboxChoices', { params: { project }, body: { silent } }));
    } catch (failure) {
      tellFailure(failure);
      void client.invalidateQueries({ queryKey });
    }
  };
  return (
    <Dialog title="What reaches you" onClose={onClose} keepsAtOnce>
      {data === undefined ? (
        <p className="text-ink2">{error === null ? 'Reading …' : failureSentence(error)}</p>
      ) : (
        <ul className="border-t border-rule text-sm">
          {INBOX_REASONS.map((reason) => (
            <li key={reason} className="border-b border-rule">
              <label className="flex min-h-8 items-center gap-2">
                <input type="checkbox" checked={!data.silent.includes(reason)} onChange={(event) => void choose(event.target.checked ? data.silent.filter((r) => r !== reason) : [...data.silent, reason])} />
                {REASON_WORD[reason]}
              </label>
            </li>
          ))}
        </ul>
      )}
      <p className="mt-3 text-sm text-ink2">You follow what you own, wrote in or are asked, and what you choose: More, on its page. What came in already stays.</p>
      <div className="mt-4 flex justify-end">
        <Button look="accent" onClick={onClose}>
          Done
        </Button>
      </div>
    </Dialog>
  );
}
