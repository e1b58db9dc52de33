import type { ArtefactId, CaseId } from '@caderno/core/artefacts';
import { CLONED_PARTS, cloneCase, type CaseContent, type ClonedPart, type Replacement } from '@caderno/core/cases';
import { X } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useChangeMany, useWrite } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, countOf, TickIn, TextBox, IconButton } from '../look/index.ts';
import { WordDiff } from '../versions/index.ts';

/** A case as it stands, to be cloned or merged. */
export interface CaseAt {
  readonly id: CaseId;
  readonly version: number;
  readonly content: CaseContent;
}

interface Props {
  /** The cases that are cloned. */
  readonly all: readonly CaseId[];
  /** The first of them, to be shown. */
  readonly cases: readonly CaseAt[];
  /** What is shown is more than what is saved: clones are made of that. */
  readonly unsaved?: boolean;
  readonly onClose: () => void;
  readonly onDone?: () => void;
}

const PART_WORD: Record<ClonedPart, string> = { rows: 'rows of data', covers: 'links to conditions', tags: 'tags', owner: 'owner', defects: 'links to defects', dependsOn: 'what it depends on' };

const MOST_REPLACEMENTS = 12;
/** As many as one command makes. */
const MOST_MADE = 5_000;
export const MOST_PREVIEWED = 8;

/** Clones cases: one chooses what comes along and which words are replaced, and sees what that makes. */
export function CloneDialog({ all, cases, unsaved = false, onClose, onDone }: Props) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const write = useWrite(project);
  const navigate = useNavigate();
  const [parts, setParts] = useState<readonly ClonedPart[]>(['rows', 'covers', 'tags']);
  const [sets, setSets] = useState<readonly (readonly Replacement[])[]>([[{ from: '', to: '' }]]);
  const clones = sets.flatMap((set) => cases.map(({ id, version, content }) => ({ before: content, after: cloneCase({ id, version }, content, parts, set) })));
  const count = all.length * sets.length;
  const detail = `Clones of ${all.slice(0, 5).join(', ')}`;
  const make = async (): Promise<readonly ArtefactId[] | null> => {
    if (unsaved) return write({ made: clones.map(({ after }) => ({ kind: 'case' as const, content: after })), detail });
    const replaced = sets.map((set) => set.filter((r) => r.from !== ''));
    return (await changeMany({ of: { ids: [...all] }, done: { kind: 'clone', parts: [...parts], sets: replaced }, detail }))?.made ?? null;
  };
  const run = async (): Promise<void> => {
    const made = await make();
    if (made === null) return;
    toast.success(`${countOf(made.length, 'case')} made: ${made.slice(0, 5).join(', ')}${made.length > 5 ? ' …' : ''}. The journal can undo it.`);
    onDone?.();
    onClose();
    const [first] = made;
    if (made.length === 1 && first !== undefined) await navigate(address.artefact(project, first));
  };
  const setReplacement = (at: number, place: number, part: Partial<Replacement>): void => setSets(sets.map((set, i) => (i === at ? set.map((r, k) => (k === place ? { ...r, ...part } : r)) : set)));
  return (
    <Dialog title={all.length === 1 ? `Clone ${all[0] ?? ''}` : `Clone ${countOf(all.length, 'case')}`} onClose={onClose} wide>
      <fieldset className="text-sm">
        <legend className="font-semibold">What comes along besides texts, steps and parameters</legend>
        <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
          {CLONED_PARTS.map((part) => (
            <TickIn key={part} item={part} of={parts} onChange={setParts}>
              {PART_WORD[part]}
            </TickIn>
          ))}
        </div>
      </fieldset>
      <p className="mt-4 text-sm font-semibold">Words to replace, in texts and in values</p>
      {sets.map((set, at) => (
        <fieldset key={at} className="mt-1 border-l-2 border-rule2 pl-3 text-sm">
          <legend className="sr-only">Clone {at + 1}</legend>
          {set.map((r, place) => (
            <p key={place} className="flex items-center gap-2 py-0.5">
              <TextBox aria-label={`Word to replace, clone ${at + 1}, ${place + 1}`} className="w-44" placeholder="word to replace" value={r.from} maxLength={200} onChange={(text) => setReplacement(at, place, { from: text })} />
              <span aria-hidden="true">→</span>
              <TextBox aria-label={`What stands in its place, clone ${at + 1}, ${place + 1}`} className="w-44" placeholder="replace it with" value={r.to} maxLength={200} onChange={(text) => setReplacement(at, place, { to: text })} />
              {place === set.length - 1 && set.length < MOST_REPLACEMENTS && (
                <TextButton className="text-xs" onClick={() => setSets(sets.map((s, i) => (i === at ? [...s, { from: '', to: '' }] : s)))}>
                  and another word
                </TextButton>
              )}
              {place === set.length - 1 && sets.length > 1 && (
                <IconButton label={`No clone ${at + 1}`} title="Without this clone" onClick={() => setSets(sets.filter((_, i) => i !== at))} icon={<X size={13} aria-hidden="true" />} />
              )}
            </p>
          ))}
        </fieldset>
      ))}
      {sets.length < 50 && (
        <TextButton className="mt-1 text-sm" onClick={() => setSets([...sets, (sets.at(-1) ?? []).map((r) => ({ ...r, to: '' }))])}>
          one more clone, with other words
        </TextButton>
      )}
      <Preview clones={clones} count={count} />
      <div className="mt-4 flex gap-3">
        <Button look="accent" disabled={count > MOST_MADE} onClick={() => void run()}>
          Make {countOf(count, 'case')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}

function Preview({ clones, count }: { readonly clones: readonly { readonly before: CaseContent; readonly after: CaseContent }[]; readonly count: number }) {
  return (
    <section className="mt-4 max-h-[34vh] overflow-y-auto border-y border-rule text-sm" aria-label="What is made">
      {clones.slice(0, MOST_PREVIEWED).map(({ before, after }, i) => {
        const changes = changedTexts(before, after);
        return (
          <div key={i} className="border-b border-rule py-1.5 last:border-b-0">
            <p className="font-medium">
              <WordDiff from={before.title} to={after.title} />
            </p>
            {changes.slice(0, 4).map(([from, to], k) => (
              <p key={k} className="ml-3 text-xs text-ink2">
                <WordDiff from={from} to={to} />
              </p>
            ))}
            <p className="ml-3 text-xs text-ink2">
              {changes.length === 0 ? 'Nothing else is replaced' : changes.length > 4 ? `and ${countOf(changes.length - 4, 'more place')}` : ''}
            </p>
          </div>
        );
      })}
      {count > MOST_PREVIEWED && <p className="py-1 text-xs text-ink2">and {countOf(count - MOST_PREVIEWED, 'more case')}</p>}
    </section>
  );
}

/** Texts and values that are not what they were, title apart. Rows that stay behind are no change of a text. */
function changedTexts(before: CaseContent, after: CaseContent): [string, string][] {
  const textsOf = (c: CaseContent): string[] => [
    c.objective,
    c.areas,
    c.ideas,
    c.preconditions,
    ...c.steps.flatMap((s) => (s.kind === 'step' ? [s.action, s.expected] : s.arguments.map((a) => a.value))),
    ...c.parameters.flatMap((p) => [p.default, p.description]),
    ...c.rows.flatMap((r) => [r.name, ...Object.values(r.cells)]),
  ];
  const [old, now] = [textsOf(before), textsOf(after)];
  return now.flatMap((text, i) => (text === old[i] ? [] : [[old[i] ?? '', text] as [string, string]]));
}
