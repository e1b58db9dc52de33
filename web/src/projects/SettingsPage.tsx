import { WORDING_RULES, type WordingRule } from '@caderno/core/basis';
import { LOOK_RULES } from '@caderno/core/cases';
import { LIMITS, type ProjectSettings, type ResponseOf } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSettings } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { MEND_WORDS, RULE_WORD, Button, Section, countOf, TextBox, NumberBox, Tick } from '../look/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { BothSides, KeepWords, useEditCommands, useKeptHere, type LocalDraft } from '../versions/index.ts';
import { AgreementEditor } from './AgreementEditor.tsx';
import { ConfigurationsEditor } from './ConfigurationsEditor.tsx';
import { ConstantsEditor } from './ConstantsEditor.tsx';
import { FactorsEditor } from './FactorsEditor.tsx';
import { FieldsEditor } from './FieldsEditor.tsx';
import { LooksEditor } from './LooksEditor.tsx';
import { ModulesEditor } from './ModulesEditor.tsx';
import { PrioritiesEditor } from './PrioritiesEditor.tsx';
import { RiskScaleEditor } from './RiskScaleEditor.tsx';
import { ScenariosEditor } from './ScenariosEditor.tsx';
import { TagsEditor } from './TagsEditor.tsx';
import { TrackerForm } from './TrackerForm.tsx';
import { ValueKindsEditor } from './ValueKindsEditor.tsx';
import { useEditedSettings } from './useEditedSettings.ts';

/** What the project sets for itself. Each save is an entry of the journal and can be undone. */
export function SettingsPage() {
  const { project } = useFrame();
  const { data, error } = useSettings(project);
  const keptHere = useKeptHere('settings');
  return data === undefined || keptHere === undefined ? <Loading error={error} /> : <Settings key={project} stored={data} keptHere={keptHere} />;
}

function Settings({ stored, keptHere }: { readonly stored: ResponseOf<'readSettings'>; readonly keptHere: LocalDraft | null }) {
  const { project, canEdit, canLead } = useFrame();
  const editing = useEditedSettings(stored, keptHere);
  const { content: settings, update, dirty, save, discard } = editing;
  useEditCommands('the settings', editing, canEdit, null);
  const set = (part: Partial<ProjectSettings>): void => update((s) => ({ ...s, ...part }));
  const [depths, setDepths] = useState<string | null>(null);
  const leaveDepths = (): void => {
    if (depths !== null) set({ depths: [...new Set(depths.split(',').map((d) => d.trim()).filter(Boolean))].slice(0, LIMITS.depths) });
    setDepths(null);
  };
  const toggle = (rule: WordingRule, on: boolean): void => set({ rulesOff: on ? settings.rulesOff.filter((r) => r !== rule) : [...settings.rulesOff, rule] });
  return (
    <div className="h-full scroll-pt-20 overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-4xl pb-10">
        {/* Whoever changes something far below sees how it is kept, and can save it. */}
        <header className="sticky -top-6 z-10 -mx-2 -mt-6 flex items-baseline gap-3 bg-page px-2 pb-2 pt-6 print:bg-white">
          <h1 className="font-serif text-2xl font-semibold">Settings of the project</h1>
          <span className="ml-auto" />
          {dirty && (
            <>
              <span role="status" className="text-xs text-ink2">
                <KeepWords keep={editing.keep} saved="" />
              </span>
              <Button onClick={discard}>Discard</Button>
              <Button look="accent" onClick={() => void save('')}>
                Save
              </Button>
            </>
          )}
        </header>
        {editing.theirs !== null && <BothSides name="Settings" theirs={editing.theirs} mine={settings} onSettle={editing.settle} />}
        {!canLead && <p className="mt-1 text-sm text-ink2">The scales, the limit of items, who changes which module, what agreement asks for and the tracker are a lead’s to change.</p>}
        <Section title="Risk" aside="likelihood × impact; the risk of a requirement weighs its coverage">
          <RiskScaleEditor scale={settings.riskScale} canEdit={canLead} onChange={(riskScale) => set({ riskScale })} />
        </Section>
        <Section title="Weak wording" aside={`${WORDING_RULES.length - settings.rulesOff.length} of ${WORDING_RULES.length} rules are on`}>
          <ul className="mt-1 grid grid-cols-2 gap-x-8">
            {WORDING_RULES.map((rule) => (
              <li key={rule} className="border-b border-rule py-1.5">
                <Tick atTop disabled={!canEdit} checked={!settings.rulesOff.includes(rule)} onChange={(ticked) => toggle(rule, ticked)}>
                  <span>
                    <span className="font-medium">{RULE_WORD[rule]}</span>
                    <span className="block text-xs text-ink2">{MEND_WORDS[rule]}</span>
                  </span>
                </Tick>
              </li>
            ))}
          </ul>
        </Section>
        <Section title="Fields" aside="of the project’s own, on pages, in lists and queries">
          <FieldsEditor fields={settings.fields} saved={stored.settings.fields} canEdit={canEdit} onChange={(fields) => set({ fields })} />
        </Section>
        <Section title="Priorities" aside="the highest first; renamed in all that has them">
          <PrioritiesEditor priorities={settings.priorities} canEdit={canEdit} onChange={(priorities) => set({ priorities })} />
        </Section>
        <Section title="Modules" aside="in this order wherever they are listed; renamed in all that has them; changed by everybody, or by some only">
          <ModulesEditor order={settings.modules} keepers={settings.keepers} canEdit={canEdit} canLead={canLead} onChange={set} />
        </Section>
        <Section title="Tags" aside="renamed and joined in all that has them">
          <TagsEditor canEdit={canEdit} />
        </Section>
        <Section title="Depth of testing" aside="labels for conditions, from shallow to deep">
          <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
            <TextBox aria-label="Depths, commas between" className="w-96" readOnly={!canEdit} value={depths ?? settings.depths.join(', ')} onChange={setDepths} onBlur={leaveDepths} />
            <span className="text-ink2">commas between; a condition may belong to several</span>
          </p>
        </Section>
        <Section title="Models" aside="how many coverage items one condition may have">
          <p className="mt-2 flex items-center gap-2 text-sm">
            <NumberBox aria-label="Most coverage items of a condition" min={100} max={LIMITS.items} step={1000} className="w-32" readOnly={!canLead} value={settings.mostItems} onChange={(mostItems) => mostItems !== null && set({ mostItems })} />
            <span className="text-ink2">a model with more is counted and refused, so that nobody waits for it</span>
          </p>
        </Section>
        <Section title="Constants" aside="names that any step and any cell may use between angle brackets">
          <ConstantsEditor constants={settings.constants} configurations={settings.configurations} canEdit={canEdit} onChange={(constants) => set({ constants })} />
        </Section>
        <Section title="Factors" aside="what differs between the places where it is tested, and what it can be">
          <FactorsEditor environment={settings.environment} canEdit={canEdit} onChange={(environment) => set({ environment })} />
        </Section>
        <Section title="Configurations" aside="where it is tested; a constant may have another value in each">
          <ConfigurationsEditor configurations={settings.configurations} environment={settings.environment} canEdit={canEdit} onChange={(configurations) => set({ configurations })} />
        </Section>
        <Section title="Hints" aside={`what is looked for in cases; ${LOOK_RULES.length - settings.looksOff.length} of ${LOOK_RULES.length} are on`}>
          <LooksEditor off={settings.looksOff} canEdit={canEdit} onChange={(looksOff) => set({ looksOff })} />
        </Section>
        <Section title="Scenarios" aside="by hand or automated, how long they take, and what are values in their steps">
          <ScenariosEditor execution={settings.scenarioExecution} canEdit={canEdit} onChange={(scenarioExecution) => set({ scenarioExecution })} />
          <ValueKindsEditor kinds={settings.valueKinds} canEdit={canEdit} onChange={(valueKinds) => set({ valueKinds })} />
        </Section>
        <Section title="Agreement" aside="what a review asks for">
          <AgreementEditor agreement={settings.agreement} canEdit={canLead} onChange={(agreement) => set({ agreement })} />
        </Section>
        <Section title="Glossary" aside={countOf(settings.glossary.length, 'term')}>
          <p className="mt-2 text-sm">
            <Link className="text-blue underline" to={address.glossary(project)}>
              Open the glossary
            </Link>
          </p>
        </Section>
        <Section title="Story tracker" aside={settings.tracker === null ? 'not connected' : 'connected'}>
          <TrackerForm tracker={settings.tracker} canEdit={canLead} onChange={(tracker) => set({ tracker })} />
        </Section>
      </div>
    </div>
  );
}
