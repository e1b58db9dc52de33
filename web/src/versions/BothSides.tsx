import { asJson, type Choice, type Json } from '@caderno/core/versions';
import type { OwnField } from '@caderno/core/fields';
import { LIMITS } from '@caderno/contract';
import { useState } from 'react';
import { useOwnFields } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, TextArea, Answer } from '../look/index.ts';
import type { Theirs } from './editState.ts';
import { ownName, ownShown } from './ownNamed.ts';
import { pathWords } from './pathWords.ts';

interface Props {
  /** Of what: `C-12`, `Settings`. */
  readonly name: string;
  readonly theirs: Theirs<unknown>;
  readonly mine: unknown;
  readonly onSettle: (choices: ReadonlyMap<string, Choice>) => void;
}

/** Somebody saved changes at the same places: both are shown, and the person chooses for each. */
export function BothSides({ name, theirs, mine, onSettle }: Props) {
  const [open, setOpen] = useState(false);
  const [choices, setChoices] = useState<ReadonlyMap<string, Choice>>(new Map());
  const fields = useOwnFields(useFrame().project);
  const choose = (path: string, choice: Choice): void => setChoices((c) => new Map(c).set(path, choice));
  return (
    <div role="alert" className="mt-2 rounded-field bg-ochre-wash px-3 py-2 text-sm text-ink">
      {theirs.author} saved v{theirs.version} meanwhile and changed the same {theirs.conflicts.length === 1 ? 'place' : `${theirs.conflicts.length} places`}. Your text is kept.{' '}
      <TextButton onClick={() => setOpen(true)}>Look at both and choose</TextButton>
      {open && (
        <Dialog title={`${name}: both changed`} onClose={() => setOpen(false)} wide>
          <p className="text-sm text-ink2">Everything else of both is taken together. For these, choose one side each, or write another text.</p>
          <div className="mt-4 space-y-4">
            {theirs.conflicts.map((conflict) => (
              <fieldset key={conflict.path} className="border-t border-rule pt-2">
                <legend className="pr-2 text-sm font-semibold">{ownIdIn(conflict.path) === null ? pathWords(conflict.path, [asJson(mine), asJson(theirs.content)]) : ownName(ownIdIn(conflict.path) ?? '', fields)}</legend>
                <div className="grid grid-cols-2 gap-4">
                  <SideBox name={conflict.path} label="Mine" value={shown(conflict.path, conflict.mine, fields)} checked={(choices.get(conflict.path) ?? 'mine') === 'mine'} onChoose={() => choose(conflict.path, 'mine')} />
                  <SideBox name={conflict.path} label={`${theirs.author}’s`} value={shown(conflict.path, conflict.theirs, fields)} checked={choices.get(conflict.path) === 'theirs'} onChoose={() => choose(conflict.path, 'theirs')} />
                </div>
                {(typeof conflict.mine === 'string' || typeof conflict.theirs === 'string') && <OwnText path={conflict.path} given={conflict.theirs ?? conflict.mine ?? ''} choice={choices.get(conflict.path)} onChoose={(own) => choose(conflict.path, { own })} />}
              </fieldset>
            ))}
          </div>
          <div className="mt-5 flex gap-2">
            <Button
              look="accent"
              onClick={() => {
                onSettle(new Map(theirs.conflicts.map((c) => [c.path, choices.get(c.path) ?? 'mine'])));
                setOpen(false);
              }}
            >
              Take these together
            </Button>
            <Button onClick={() => setOpen(false)}>Cancel</Button>
          </div>
        </Dialog>
      )}
    </div>
  );
}

/** The field of the project's own that a place is; null where it is none. */
function ownIdIn(path: string): string | null {
  return /^own\/([^/]+)$/.exec(path)?.[1] ?? null;
}

function shown(path: string, value: Json | undefined, fields: readonly OwnField[]): Json | undefined {
  const id = ownIdIn(path);
  return id === null || value === undefined ? value : ownShown(id, value, fields);
}

interface SideBoxProps {
  readonly name: string;
  readonly label: string;
  readonly value: Json | undefined;
  readonly checked: boolean;
  readonly onChoose: () => void;
}

function SideBox({ name, label, value, checked, onChoose }: SideBoxProps) {
  return (
    <Answer atTop name={name} checked={checked} onPick={onChoose} className={`rounded-field border p-3 ${checked ? 'border-blue bg-blue-wash' : 'border-rule2'}`}>
      <span className="min-w-0">
        <span className="block text-xs font-semibold text-ink2">{label}</span>
        <span className="block max-h-52 overflow-auto whitespace-pre-wrap break-words text-sm">{valueWords(value)}</span>
      </span>
    </Answer>
  );
}

function OwnText({ path, given, choice, onChoose }: { readonly path: string; readonly given: Json; readonly choice: Choice | undefined; readonly onChoose: (text: string) => void }) {
  const own = typeof choice === 'object' && typeof choice.own === 'string' ? choice.own : null;
  return (
    <Answer atTop name={path} checked={own !== null} onPick={() => onChoose(typeof given === 'string' ? given : '')} className="mt-2 text-sm">
      <span className="min-w-0 flex-1">
        <span className="block text-xs font-semibold text-ink2">Another text</span>
        {own !== null && <TextArea autoFocus aria-label="Another text" value={own} rows={2} maxLength={LIMITS.text} onChange={onChoose} className="mt-1 block w-full [field-sizing:content]" />}
      </span>
    </Answer>
  );
}

function valueWords(value: Json | undefined): string {
  if (value === undefined) return '(removed)';
  return typeof value === 'string' ? value || '(empty)' : JSON.stringify(value, null, 1);
}
