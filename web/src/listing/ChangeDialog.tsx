import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { LIMITS, type ChangeMany, type Summary } from '@caderno/contract';
import { useId, useState } from 'react';
import { foreseenOf, useListProject, useSummaries, type ListedHead } from '../api/index.ts';
import { PickArtefact } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, Dialog, KIND_NAME, countOf, locale, Tick, TextBox } from '../look/index.ts';
import { changeOf, changedFieldsOf, changedWord, choicesOf, isOwnField, type ChangedField, type Filled } from './changes.ts';
import { useKnownValues } from './useKnownValues.ts';

interface Props<K extends ArtefactKind> {
  readonly kind: K;
  readonly chosen: readonly ListedHead<K>[];
  readonly onChange: (done: ChangeMany['done'], what: string) => Promise<boolean>;
  readonly onClose: () => void;
}

/** One field of many artefacts is set alike; how many will be another then is said before. */
export function ChangeDialog<K extends ArtefactKind>({ kind, chosen, onChange, onClose }: Props<K>) {
  const [one, many] = KIND_NAME[kind];
  const rules = useListProject(useFrame().project);
  const own = rules.fields;
  const fields = changedFieldsOf(kind, own);
  const [field, setField] = useState<ChangedField>(fields[0] ?? 'state');
  const [value, setValue] = useState('');
  const [picked, setPicked] = useState<Filled['picked']>(null);
  const [isEmptied, setEmptied] = useState(false);
  const [busy, setBusy] = useState(false);
  const change = changeOf({ field, value: isEmptied ? '' : value, picked, empties: isEmptied }, rules);
  const changed = change === null ? null : willChange(chosen.map((listed) => listed.head), change.done);
  const choose = (next: ChangedField): void => {
    setField(next);
    setValue('');
    setPicked(null);
    setEmptied(false);
  };
  const carryOut = async (): Promise<void> => {
    if (change === null) return;
    setBusy(true);
    if (await onChange(change.done, change.what)) onClose();
    else setBusy(false);
  };
  return (
    <Dialog title={`Change ${countOf(chosen.length, one, many)}`} onClose={onClose} keepsAtOnce>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void carryOut();
        }}
      >
        <div className="flex flex-wrap items-center gap-3">
          <Choose label="What" showLabel value={field} options={fields.map((name) => ({ value: name, name: changedWord(name, own) }))} onChange={choose} />
          <ValueField key={field} kind={kind} field={field} value={value} picked={picked} onValue={setValue} onPicked={setPicked} isEmptied={isEmptied} onEmptied={setEmptied} />
        </div>
        <p className="mt-4 text-sm text-ink2" role="status">
          {changed === null ? (value.trim() === '' ? 'Say what they are to have.' : `${changedWord(field, own)} cannot be “${value}”.`) : changed === chosen.length ? `All ${chosen.length.toLocaleString(locale())} will change.` : `${changed.toLocaleString(locale())} of ${chosen.length.toLocaleString(locale())} will change; the others have it already.`} One entry of the journal; Undo takes it back whole.
        </p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={busy || change === null || changed === 0}>
            {busy ? 'Changing …' : `Change ${changed === null ? many : countOf(changed, one, many)}`}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** How many heads will be another. */
function willChange(heads: readonly Summary[], done: ChangeMany['done']): number {
  const foreseen = foreseenOf({ of: { ids: heads.map((h) => h.id) as ArtefactId[] }, done });
  if (foreseen === null) return heads.length;
  return heads.filter((head) => JSON.stringify(foreseen.head(head)) !== JSON.stringify(head)).length;
}

interface FieldProps {
  readonly kind: ArtefactKind;
  readonly field: ChangedField;
  readonly value: string;
  readonly picked: Filled['picked'];
  readonly onValue: (value: string) => void;
  readonly onPicked: (picked: Filled['picked']) => void;
  /** A field of the project’s own is left with nothing in it. */
  readonly isEmptied: boolean;
  readonly onEmptied: (isEmptied: boolean) => void;
}

function ValueField({ kind, field, value, picked, onValue, onPicked, isEmptied, onEmptied }: FieldProps) {
  const { project } = useFrame();
  const rules = useListProject(project);
  const offered = usePickable(project, field);
  const known = useKnownValues(project, kind, field);
  const list = useId();
  const choices = choicesOf(field, rules);
  const word = changedWord(field, rules.fields);
  if (choices !== null) return <Choose label={word} value={value} options={[...(value === '' ? [{ value: '', name: 'Choose' }] : []), ...choices]} onChange={onValue} />;
  if (offered !== null) {
    const title = offered.find((o) => o.id === picked?.id)?.title ?? '';
    const what = field === 'link' || field === 'unlink' ? 'Condition' : field === 'writtenFor' || field === 'notWrittenFor' ? 'Requirement' : 'What they use';
    return (
      <span className="min-w-72 flex-1">
        {picked !== null && <span className="mb-1 block text-sm">{`${picked.id} ${title}${field === 'pin' ? `, v${picked.version}` : ''}`}</span>}
        <PickArtefact label={what} placeholder="Words of its title, or its id" offered={offered} onPick={(id) => onPicked(offered.find((o) => o.id === id) ?? null)} />
      </span>
    );
  }
  return (
    <>
      <TextBox aria-label={word} value={value} list={list} maxLength={LIMITS.name} inputMode={field === 'minutes' ? 'decimal' : 'text'} disabled={isEmptied} onChange={onValue} className="min-w-60 flex-1" />
      <datalist id={list}>
        {known.map((text) => (
          <option key={text} value={text} />
        ))}
      </datalist>
      {isOwnField(field) && (
        <Tick checked={isEmptied} onChange={onEmptied} className="text-sm">
          leave it empty
        </Tick>
      )}
    </>
  );
}

/** What can be picked for a field: conditions, requirements, or what artefacts use; null: nothing, its value is written or chosen. */
function usePickable(project: string, field: ChangedField): readonly { readonly id: ArtefactId; readonly title: string; readonly version: number }[] | null {
  const conditions = useSummaries(project, 'condition').data;
  const requirements = useSummaries(project, 'requirement').data;
  const shared = useSummaries(project, 'shared').data;
  const dataSets = useSummaries(project, 'dataSet').data;
  const cases = useSummaries(project, 'case').data;
  if (field === 'link' || field === 'unlink') return conditions ?? [];
  if (field === 'writtenFor' || field === 'notWrittenFor') return requirements?.filter((r) => r.type !== 'heading' && r.state !== 'withdrawn') ?? [];
  return field === 'pin' || field === 'follow' || field === 'followAgreed' ? [...(shared ?? []), ...(dataSets ?? []), ...(cases ?? [])] : null;
}
