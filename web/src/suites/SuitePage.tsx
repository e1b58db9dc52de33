import type { CoveringId, SuiteId } from '@caderno/core/artefacts';
import { percentDown, shownRatio } from '@caderno/core/coverage';
import { withMembers, type EntryId, type SuiteContent, type SuiteEntry, type SuiteFigures } from '@caderno/core/suites';
import { LIMITS } from '@caderno/contract';
import { useCallback, useState } from 'react';
import { failureSentence, useModules } from '../api/index.ts';
import { ChooseOwner, Loading, Tags, TextInput } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Section, countOf, durationOf, locale } from '../look/index.ts';
import { newEntryId } from '../suiteMembers/index.ts';
import { ArtefactHead, useEditable, useEditing, type EditableArtefact, type Editing } from '../versions/index.ts';
import { AddMembers } from './AddMembers.tsx';
import { SuiteEntries } from './SuiteEntries.tsx';
import { SuiteMargin } from './SuiteMargin.tsx';
import { WhereItRuns } from './WhereItRuns.tsx';
import { useSuiteFigures } from './suiteQueries.ts';

/** A suite: what it is for, its members in headed parts, and in the margin what they show and miss. */
export function SuitePage({ id }: { readonly id: SuiteId }) {
  const { data, error } = useEditable('suite', id);
  return data === undefined ? <Loading error={error} /> : <Suite key={id} artefact={data} />;
}

function Suite({ artefact }: { readonly artefact: EditableArtefact<'suite'> }) {
  const { canEdit } = useFrame();
  const editing = useEditing('suite', artefact);
  const { content, update } = editing;
  const { id, state } = artefact.summary;
  const { data: figures, error } = useSuiteFigures(content);
  const [at, setAt] = useState<EntryId | null>(null);
  const edit = useCallback((change: (entries: readonly SuiteEntry[]) => readonly SuiteEntry[]) => update((c) => withEntries(c, change(c.entries))), [update]);
  const add = useCallback((members: readonly CoveringId[], part: EntryId | null = null) => edit((entries) => withMembers(entries, members, part, newEntryId)), [edit]);
  const remove = useCallback((members: readonly CoveringId[]) => edit((entries) => entries.filter((entry) => entry.kind === 'part' || !members.includes(entry.of))), [edit]);
  return (
    <article className="px-7 pb-16 pt-5">
      <ArtefactHead summary={artefact.summary} state={state} editing={editing} rareWords={rareWords(content)} rare={<RareFields content={content} canEdit={canEdit} update={update} />}>
        <DailyFields content={content} canEdit={canEdit} update={update} />
      </ArtefactHead>
      <textarea aria-label="What it is for" rows={1} maxLength={LIMITS.line} value={content.purpose} readOnly={!canEdit} placeholder="What it is for" onChange={(e) => update((c) => ({ ...c, purpose: e.target.value }))} className="field-quiet mt-2 w-full resize-none text-ink2 [field-sizing:content]" />
      <WhereItRuns configurations={content.configurations} canEdit={canEdit} onChange={(configurations) => update((c) => ({ ...c, configurations }))} />
      {figures === undefined && error === null && <p role="status" className="mt-3 text-sm text-ink2">Working out what it shows …</p>}
      {figures !== undefined && <Figures figures={figures} configurations={content.configurations.length} />}
      {error !== null && figures === undefined && <p role="alert" className="mt-3 rounded-field bg-ochre-wash px-3 py-1.5 text-sm text-ochre-ink">{failureSentence(error)} The members stay as they are.</p>}
      <div className="mt-1 flex gap-5 max-narrow:flex-col">
        <div className="min-w-0 flex-1">
          <Section title="Members" aside={membersWords(content, figures)} actions={canEdit && <AddMembers entries={content.entries} at={at} onAdd={add} edit={edit} />}>
            <SuiteEntries entries={content.entries} configurations={content.configurations} figures={figures} canEdit={canEdit} edit={edit} at={at} onAt={setAt} />
          </Section>
        </div>
        <SuiteMargin id={id} artefact={artefact} content={content} figures={figures} canEdit={canEdit} isSaved={!editing.dirty} update={update} onAdd={add} onRemove={remove} edit={edit} />
      </div>
    </article>
  );
}

function withEntries(content: SuiteContent, entries: readonly SuiteEntry[]): SuiteContent {
  return entries === content.entries ? content : { ...content, entries };
}

/** Its size and what it shows, in one line. */
function Figures({ figures, configurations }: { readonly figures: SuiteFigures; readonly configurations: number }) {
  const { counts, weighted, instances, minutes, withoutMinutes, byHand, cases, scenarios } = figures;
  const [percent, byRisk] = [percentDown(shownRatio(counts)), percentDown(shownRatio(weighted))];
  const { part, of } = shownRatio(counts);
  const shares = [
    { value: percent === null ? '–' : `${percent} %`, words: `${part.toLocaleString(locale())} of ${countOf(of, 'item')} shown` },
    { value: byRisk === null ? '–' : `${byRisk} %`, words: 'shown, weighed by risk' },
    { value: instances.toLocaleString(locale()), words: `${instances === 1 ? 'instance' : 'instances'} of ${[...(cases > 0 || scenarios === 0 ? [countOf(cases, 'case')] : []), ...(scenarios > 0 ? [countOf(scenarios, 'scenario')] : [])].join(', ')}${configurations > 0 ? ` in ${countOf(configurations, 'configuration')}` : ''}` },
    { value: durationOf(minutes), words: withoutMinutes === 0 ? (configurations > 1 ? 'to execute it in all of them' : 'to execute it once') : `and ${countOf(withoutMinutes, 'member')} without minutes` },
    { value: byHand.toLocaleString(locale()), words: `by hand, ${(cases + scenarios - byHand).toLocaleString(locale())} automated` },
  ];
  return (
    <ul aria-label="Figures of the suite" className="mt-3 flex flex-wrap gap-x-8 gap-y-2">
      {shares.map(({ value, words }) => (
        <li key={words} className="max-w-[9.5rem]">
          <span className="block font-serif text-xl font-semibold leading-6">{value}</span>
          <span className="block text-xs leading-4 text-ink2">{words}</span>
        </li>
      ))}
    </ul>
  );
}

function membersWords({ entries }: SuiteContent, figures: SuiteFigures | undefined): string {
  const parts = entries.filter((entry) => entry.kind === 'part').length;
  return [...(figures === undefined ? [] : [countOf(figures.members.length, 'member')]), ...(parts > 0 ? [countOf(parts, 'part')] : [])].join(', ');
}

interface FieldsProps {
  readonly content: SuiteContent;
  readonly canEdit: boolean;
  readonly update: Editing<SuiteContent>['update'];
}

function DailyFields({ content, canEdit, update }: FieldsProps) {
  const { project } = useFrame();
  const modules = useModules(project);
  return (
    <>
      <TextInput label="Module" bare placeholder="No module" value={content.module} readOnly={!canEdit} onChange={(module) => update((c) => ({ ...c, module }))} suggestions={modules} />
      <ChooseOwner owner={content.owner} canEdit={canEdit} onChange={(owner) => update((c) => ({ ...c, owner }))} />
    </>
  );
}

function RareFields({ content, canEdit, update }: FieldsProps) {
  return (
    <>
      <TextInput label="Folder" placeholder="No folder" value={content.folder} readOnly={!canEdit} onChange={(folder) => update((c) => ({ ...c, folder }))} />
      <Tags tags={content.tags} canEdit={canEdit} onChange={(tags) => update((c) => ({ ...c, tags }))} />
    </>
  );
}

function rareWords({ folder, tags }: SuiteContent): string[] {
  return [...(folder === '' ? [] : [folder]), ...tags];
}
