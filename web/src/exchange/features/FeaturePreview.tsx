import type { ArtefactId } from '@caderno/core/artefacts';
import type { Side } from '@caderno/core/versions';
import type { FeatureLeftReason, FeaturesDraft } from '@caderno/contract';
import { useState } from 'react';
import { call } from '../../api/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Section, TextButton, countOf, featureProblemSentence } from '../../look/index.ts';
import { ChangedOnBothSides } from '../ChangedOnBothSides.tsx';
import { RunImport } from '../RunImport.tsx';

const LEFT_WORD: Record<FeatureLeftReason, string> = { too_large: 'is too large for a feature', not_text: 'is no text in UTF-8', bad_path: 'has a name that leads elsewhere', twice: 'stands twice in it' };

/** What files of features would do: what has to be chosen first, then what is changed, added and left out. */
export function FeaturePreview({ draft, onDone }: { readonly draft: FeaturesDraft; readonly onDone: (first: ArtefactId | null) => void }) {
  const { project } = useFrame();
  const [choices, setChoices] = useState<Readonly<Record<string, Side>>>({});
  const { counts } = draft;
  const run = (commandId: string) => call('runFeatures', { params: { project, import: draft.id }, body: { choices } }, { commandId });
  const inConflict = draft.changed.filter((change) => change.both.length > 0);
  const chooseAll = (side: Side): void => setChoices(Object.fromEntries(inConflict.map((change) => [change.id, side])));
  return (
    <Section
      title="What it would do"
      aside={`${counts.added.toLocaleString()} added with ${countOf(counts.scenarios, 'scenario')} · ${counts.changed.toLocaleString()} changed · ${counts.same.toLocaleString()} as they are`}
      actions={<RunImport id={draft.id} run={run} open={draft.conflicts - Object.keys(choices).length} nothing={counts.added + counts.changed === 0} unnamed={false} onDone={onDone} />}
    >
      {inConflict.length > 0 && (
        <section className="mt-4" aria-label="Changed here and in the file">
          <h4 className="flex flex-wrap items-baseline gap-3 text-sm font-semibold">
            Changed here and in the file
            <span className="text-xs font-normal text-ink2">
              Where only one side changed a line, that is taken. For the rest choose for each, or <TextButton onClick={() => chooseAll('mine')}>keep all of this project’s</TextButton> or <TextButton onClick={() => chooseAll('theirs')}>take all of the files’</TextButton>
            </span>
          </h4>
          <ul>
            {inConflict.map((change) => (
              <ChangedOnBothSides key={change.id} change={{ ...change, kind: 'feature', here: change.id, both: [...change.both] }} side={choices[change.id]} onChoose={(side) => setChoices({ ...choices, [change.id]: side })} />
            ))}
          </ul>
        </section>
      )}
      <Listed title="Problems" total={counts.problems} note="these lines are no good Gherkin; they come in as they are, marked" list={draft.problems.map((p) => ({ key: `${p.path}:${p.line}:${p.column}`, name: featureProblemSentence(p) }))} />
      <Listed title="Stay out" total={counts.left} list={draft.left.map(({ path, reason }) => ({ key: path, name: LEFT_WORD[reason] }))} />
      <Listed title="Changed" total={counts.changed - inConflict.length} list={draft.changed.filter((c) => c.both.length === 0).map((c) => ({ key: c.path, name: `${c.id} ${c.title}${c.from === null ? '' : `, was ${c.from}`}` }))} />
      <Listed title="Added" total={counts.added} list={draft.added.map((a) => ({ key: a.path, name: `${a.title}, ${countOf(a.scenarios, 'scenario')}` }))} />
      <Listed title="Not among them" total={counts.missing} note="these came from files once; they stay as they are" list={draft.missing.map((m) => ({ key: m.path, name: m.id }))} />
    </Section>
  );
}

const FEW = 12;

function Listed({ title, list, total, note }: { readonly title: string; readonly list: readonly { readonly key: string; readonly name: string }[]; readonly total: number; readonly note?: string }) {
  const [all, setAll] = useState(false);
  if (list.length === 0) return null;
  const shown = all ? list : list.slice(0, FEW);
  return (
    <section className="mt-4" aria-label={title}>
      <h4 className="flex items-baseline gap-3 text-sm font-semibold">
        {title} <span className="text-xs font-normal text-ink2">{[total.toLocaleString(), note].filter(Boolean).join(' · ')}</span>
      </h4>
      <ul className="text-sm">
        {shown.map((one) => (
          <li key={one.key} className="flex gap-3 border-b border-rule py-1">
            <span className="w-96 shrink-0 break-all font-mono text-xs leading-5 text-ink2">{one.key}</span>
            <span className="min-w-0">{one.name}</span>
          </li>
        ))}
      </ul>
      {!all && total > shown.length && (
        <TextButton className="mt-1 text-sm" onClick={() => setAll(true)}>
          {total > list.length ? `the first ${list.length} of ${total.toLocaleString()}` : `all ${total}`}
        </TextButton>
      )}
    </section>
  );
}
