import { canBeWordedAs, keyOfExpression, wordedAs, type OwnKinds, type PhraseKey } from '@caderno/core/scenarios';
import { useState } from 'react';
import { toast } from 'sonner';
import { failureSentence } from '../../api/index.ts';
import { useChangeMany } from '../../artefacts/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Button, Dialog, countOf, locale, TextBox, Labelled } from '../../look/index.ts';
import type { ShownPhrase } from '../usePhrases.ts';
import { useWording } from '../../phrases/index.ts';
import { usePhraseUses } from './Uses.tsx';

interface Props {
  /** Steps of these are reworded. */
  readonly from: readonly ShownPhrase[];
  /** What they are worded as at first; it can be written otherwise. */
  readonly to: string;
  readonly onClose: () => void;
}

const MOST_SHOWN = 60;

/** One wording for all uses of some phrases: each use is shown as it is and as it would be, and all are rewritten in one entry. */
export function RewordDialog({ from, to: first, onClose }: Props) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const { own, details } = useWording(project);
  const [text, setText] = useState(first);
  const [busy, setBusy] = useState(false);
  const to = keyOfExpression(text, own);
  const others = from.filter((p) => p.key !== to);
  const unfit = others.filter((p) => !canBeWordedAs(p.key, to));
  const keys = others.filter((p) => canBeWordedAs(p.key, to)).map((p) => p.key);
  const { data, error } = usePhraseUses(from.map((p) => p.key));
  // What says a phrase in full goes on saying it.
  const detailing = keys.flatMap((key) => details.get(key)?.shared ?? []);
  const changes = data === undefined ? [] : changesOf(data.features, new Set(keys), to, own);
  const run = async (): Promise<void> => {
    setBusy(true);
    const done = await changeMany({ of: { ids: [...new Set([...changes.map((c) => c.id), ...detailing])] }, done: { kind: 'edit', edit: { kind: 'wording', from: keys, to } }, detail: `worded as “${text.trim()}”`.slice(0, 300) });
    setBusy(false);
    if (done === null) return;
    toast.success(`${countOf(done.changed, detailing.length > 0 ? 'artefact' : 'feature')} changed: one wording now.`);
    onClose();
  };
  return (
    <Dialog title="One wording for all" onClose={onClose} wide>
      <Labelled label={<>The wording; {'{int}'}, {'{string}'} and the like stand for the values</>} pale className="text-sm">
        <TextBox aria-label="Wording" value={text} maxLength={2_000} onChange={setText} className="w-full" />
      </Labelled>
      {unfit.length > 0 && (
        <p className="mt-2 text-sm text-ochre-ink">
          {unfit.map((p) => `“${p.shown}”`).join(', ')} {unfit.length === 1 ? 'has' : 'have'} other values and {unfit.length === 1 ? 'stays' : 'stay'} as {unfit.length === 1 ? 'it is' : 'they are'}.
        </p>
      )}
      {error !== null && <p className="mt-2 text-sm text-brick">{failureSentence(error)}</p>}
      <h3 className="mt-3 text-sm font-semibold">
        {countOf(changes.length, 'step')} {changes.length === 1 ? 'changes' : 'change'}
      </h3>
      <ul className="max-h-[44vh] overflow-y-auto text-sm">
        {changes.slice(0, MOST_SHOWN).map((change) => (
          <li key={`${change.id} ${change.line}`} className="grid grid-cols-[5.5rem_1fr_1fr] gap-3 border-b border-rule py-1">
            <span className="font-mono text-xs leading-5 text-ink2">
              {change.id}, {change.line}
            </span>
            <span className="text-ink2 line-through decoration-ink3">{change.from}</span>
            <span>{change.to}</span>
          </li>
        ))}
      </ul>
      {changes.length > MOST_SHOWN && <p className="mt-1 text-xs text-ink2">and {(changes.length - MOST_SHOWN).toLocaleString(locale())} more</p>}
      <div className="mt-5 flex gap-2">
        <Button look="accent" disabled={busy || changes.length === 0 || text.trim() === ''} onClick={() => void run()}>
          Reword {countOf(changes.length, 'step')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}

type Features = NonNullable<ReturnType<typeof usePhraseUses>['data']>['features'];

function changesOf(features: Features, keys: ReadonlySet<PhraseKey>, to: PhraseKey, own: OwnKinds) {
  return features.flatMap(({ id, uses }) =>
    uses.flatMap(({ line, text }) => {
      const made = wordedAs(text, keys, to, own);
      return made === null ? [] : [{ id, line, from: text, to: made }];
    }),
  );
}
