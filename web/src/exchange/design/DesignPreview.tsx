import { ARTEFACT_KINDS, type ArtefactId } from '@caderno/core/artefacts';
import type { Side } from '@caderno/core/versions';
import type { DesignDraft } from '@caderno/contract';
import { useState } from 'react';
import { call } from '../../api/index.ts';
import { useFrame } from '../../frame/index.ts';
import { KIND_NAME, Section, TextButton, countOf, locale } from '../../look/index.ts';
import { Listed } from '../Listed.tsx';
import { RunImport } from '../RunImport.tsx';
import { ChangedOnBothSides } from '../ChangedOnBothSides.tsx';

type Choices = Readonly<Record<string, Side>>;

/** What a design file would do: what has to be chosen first, then what is changed, added and left out. */
export function DesignPreview({ draft, onDone }: { readonly draft: DesignDraft; readonly onDone: (first: ArtefactId | null) => void }) {
  const { project } = useFrame();
  const [choices, setChoices] = useState<Choices>({});
  const totals = ARTEFACT_KINDS.reduce((sum, kind) => ({ added: sum.added + draft.counts[kind].added, changed: sum.changed + draft.counts[kind].changed, same: sum.same + draft.counts[kind].same }), { added: 0, changed: 0, same: 0 });
  const inConflict = draft.changed.filter((change) => change.both.length > 0);
  const run = (commandId: string) => call('runDesign', { params: { project, import: draft.id }, body: { choices } }, { commandId });
  const chooseAll = (side: Side): void => setChoices(Object.fromEntries(inConflict.map((change) => [change.id, side])));
  return (
    <Section
      title="What it would do"
      aside={`${totals.added.toLocaleString(locale())} added · ${totals.changed.toLocaleString(locale())} changed · ${totals.same.toLocaleString(locale())} as they are`}
      actions={<RunImport id={draft.id} run={run} open={draft.conflicts - Object.keys(choices).length} nothing={totals.added + totals.changed === 0} unnamed={false} onDone={onDone} />}
    >
      <Counts draft={draft} />
      <ToSettings settings={draft.settings} />
      <StaysOut out={draft.out} />
      {inConflict.length > 0 && (
        <section className="mt-4" aria-label="Changed here and in the file">
          <h4 className="flex flex-wrap items-baseline gap-3 text-sm font-semibold">
            Changed here and in the file
            <span className="text-xs font-normal text-ink2">
              Where only one side changed something, that is taken. For the rest choose for each, or <TextButton onClick={() => chooseAll('mine')}>keep all of this project’s</TextButton> or <TextButton onClick={() => chooseAll('theirs')}>take all of the file’s</TextButton>
            </span>
          </h4>
          <ul>
            {inConflict.map((change) => (
              <ChangedOnBothSides key={change.id} change={change} side={choices[change.id]} onChoose={(side) => setChoices({ ...choices, [change.id]: side })} />
            ))}
          </ul>
        </section>
      )}
      <Listed title="Changed" list={draft.changed.filter((change) => change.both.length === 0).map((change) => ({ mark: change.here, words: change.title }))} total={totals.changed - inConflict.length} />
      <Listed title="Added" list={draft.added.map((one) => ({ mark: one.id, words: one.title }))} total={totals.added} note="their ids in the file; here they get the next free ones" />
    </Section>
  );
}

function Counts({ draft: { counts } }: { readonly draft: DesignDraft }) {
  const kinds = ARTEFACT_KINDS.filter((kind) => counts[kind].added + counts[kind].changed + counts[kind].same > 0);
  return (
    <table className="mt-3 text-sm">
      <thead className="text-left text-xs text-ink2">
        <tr>
          <th className="pr-8 font-normal"><span className="sr-only">Kind</span></th>
          {['added', 'changed', 'as they are'].map((word) => <th key={word} className="pr-8 text-right font-normal">{word}</th>)}
        </tr>
      </thead>
      <tbody>
        {kinds.map((kind) => (
          <tr key={kind} className="border-t border-rule">
            <th scope="row" className="py-1 pr-8 text-left font-normal first-letter:uppercase">{KIND_NAME[kind][1]}</th>
            {([counts[kind].added, counts[kind].changed, counts[kind].same] as const).map((count, i) => <td key={i} className={`py-1 pr-8 text-right font-mono text-xs ${count === 0 ? 'text-ink3' : ''}`}>{count.toLocaleString(locale())}</td>)}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What the settings of the project get with it. */
function ToSettings({ settings: { fields, constants, depths, priorities } }: Pick<DesignDraft, 'settings'>) {
  const lists = { fields, constants: constants.map((name) => `<${name}>`), depths, priorities };
  const parts = Object.entries(lists).flatMap(([what, names]) => (names.length === 0 ? [] : [`${what} ${names.join(', ')}`]));
  return parts.length === 0 ? null : <p className="mt-3 text-sm text-ink2">The settings get what it uses and this project has not: {parts.join('; ')}.{constants.length > 0 && ' A secret constant comes without its value.'}</p>;
}

/** What has no place here, named, so that nobody misses it later. */
function StaysOut({ out: { links, files, fields, people } }: Pick<DesignDraft, 'out'>) {
  const said = [
    ...(links > 0 ? [`${countOf(links, 'link')} to what is not in the file`] : []),
    ...(files > 0 ? [`${countOf(files, 'attached file')} saved without bytes`] : []),
    ...fields.map(({ name, count }) => `${countOf(count, 'value')} of the field ${name}, which is of another type here`),
    ...people.map(({ name, count }) => `${name} as owner of ${countOf(count, 'case')}, who is not in this project`),
  ];
  if (said.length === 0) return null;
  return (
    <div className="mt-3 rounded-field bg-ochre-wash px-3 py-2 text-sm text-ochre-ink">
      These stay out:
      <ul className="list-disc pl-5">
        {said.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
    </div>
  );
}
