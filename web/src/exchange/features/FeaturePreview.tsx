import type { ArtefactId } from '@caderno/core/artefacts';
import type { Side } from '@caderno/core/versions';
import { featureProblemSentence, type FeatureLeftReason, type FeaturesDraft } from '@caderno/contract';
import { useState } from 'react';
import { call } from '../../api/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Section, TextButton, countOf, locale } from '../../look/index.ts';
import { ChangedOnBothSides } from '../ChangedOnBothSides.tsx';
import { Listed } from '../Listed.tsx';
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
      aside={`${counts.added.toLocaleString(locale())} added with ${countOf(counts.scenarios, 'scenario')} · ${counts.changed.toLocaleString(locale())} changed · ${counts.same.toLocaleString(locale())} as they are`}
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
      <Listed paths title="Problems" total={counts.problems} note="these lines are no good Gherkin; they come in as they are, marked" list={draft.problems.map((p) => ({ mark: `${p.path}:${p.line}:${p.column}`, words: featureProblemSentence(p) }))} />
      <Listed paths title="Stay out" total={counts.left} list={draft.left.map(({ path, reason }) => ({ mark: path, words: LEFT_WORD[reason] }))} />
      <Listed paths title="Changed" total={counts.changed - inConflict.length} list={draft.changed.filter((c) => c.both.length === 0).map((c) => ({ mark: c.path, words: `${c.id} ${c.title}${c.from === null ? '' : `, was ${c.from}`}` }))} />
      <Listed paths title="Added" total={counts.added} list={draft.added.map((a) => ({ mark: a.path, words: `${a.title}, ${countOf(a.scenarios, 'scenario')}` }))} />
      <Listed paths title="Not among them" total={counts.missing} note="these came from files once; they stay as they are" list={draft.missing.map((m) => ({ mark: m.path, words: m.id }))} />
    </Section>
  );
}
