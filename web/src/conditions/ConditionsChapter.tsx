import type { ConditionId, RequirementId } from '@caderno/core/artefacts';
import { orderOutline } from '@caderno/core/basis';
import { conditionIdSchema, requirementIdSchema, type ArtefactOfKind } from '@caderno/contract';
import { ChevronLeft, ChevronRight, List } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, Navigate, useParams, useSearchParams } from 'react-router';
import { type ConditionInList, useArtefact, useConditionLines, useCoverage, useSummaries } from '../api/index.ts';
import { Loading, useAddCondition, useAskAbout } from '../artefacts/index.ts';
import { Outline } from '../outline/index.ts';
import { KeptModule, Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { ChapterOverview } from '../overview/index.ts';
import { Empty, RISK_WORD, Section, TextButton, countOf } from '../look/index.ts';
import { AllConditions } from './AllConditions.tsx';
import { ConditionsHeading } from './ConditionsHeading.tsx';
import { ConditionPage } from './ConditionPage.tsx';
import { RequirementText } from './RequirementText.tsx';
import { ChecklistDialog } from './list/ChecklistDialog.tsx';
import { ConditionList } from './list/ConditionList.tsx';

/** A requirement's text with its conditions at the left, the condition that is open at the right. */
export function ConditionsChapter() {
  const params = useParams();
  const all = useSearchParams()[0].get('left') === 'all';
  const requirement = requirementIdSchema.safeParse(params.requirement);
  const condition = conditionIdSchema.safeParse(params.condition);
  if (!requirement.success) return <ChooseRequirement all={all} />;
  return <OnRequirement requirement={requirement.data} condition={condition.success ? condition.data : null} all={all} />;
}

/** `/condition/K-7` leads to the condition beside its first requirement. */
export function ConditionAddress() {
  const { project } = useFrame();
  const id = conditionIdSchema.safeParse(useParams().condition);
  if (!id.success) return <Empty title="No such condition">The address names none.</Empty>;
  return <LeadTo project={project} id={id.data} />;
}

function LeadTo({ project, id }: { readonly project: string; readonly id: ConditionId }) {
  const { data, error } = useArtefact(project, 'condition', id);
  if (data === undefined) return <Loading error={error} />;
  const [first] = data.content.requirements;
  if (first === undefined) {
    return (
      <KeptModule id={id}>
        <ConditionPage id={id} requirementTexts={new Map()} />
      </KeptModule>
    );
  }
  return <Navigate replace to={address.conditions(project, first.id, id) + window.location.search + window.location.hash} />;
}

function ChooseRequirement({ all }: { readonly all: boolean }) {
  const { project } = useFrame();
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const report = useCoverage(project).data;
  const coverage = useMemo(() => new Map(report?.requirements.map((r) => [r.id, r])), [report]);
  return (
    <Spread
      chapter="conditions"
      leftShare={38}
      leftLabel="Requirements"
      rightLabel="Condition"
      left={
        all ? <AllConditions current={null} /> :
        <div className="flex h-full flex-col">
          <div className="px-6 pb-3 pt-5">
            <ConditionsHeading all={false} />
          </div>
          <Outline requirements={requirements.filter((r) => r.state !== 'withdrawn')} coverage={coverage} current={null} addressOf={(id) => address.conditions(project, id)} />
        </div>
      }
      right={<ChapterOverview kinds={['condition']}>Open a requirement at the left and mark words in its text: a condition hangs on them. Then say how it is to be exercised.</ChapterOverview>}
    />
  );
}

function OnRequirement({ requirement, condition, all }: { readonly requirement: RequirementId; readonly condition: ConditionId | null; readonly all: boolean }) {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, 'requirement', requirement);
  const conditions = useConditionLines(project, requirement).data;
  const texts = useMemo(() => new Map(data === undefined ? [] : [[requirement, data.content.text]]), [data, requirement]);
  return (
    <Spread
      chapter="conditions"
      leftShare={38}
      leftLabel="Requirement"
      rightLabel="Condition"
      left={all ? <AllConditions current={condition} /> : data === undefined ? <Loading error={error} /> : <LeftPage artefact={data} lines={conditions} current={condition} />}
      right={
        condition === null ? (
          <Empty title="Mark words in the text">Select words at the left that can be tested, and make a condition of them. Or open one that is there.</Empty>
        ) : (
          <KeptModule id={condition}>
            <ConditionPage id={condition} requirementTexts={texts} />
          </KeptModule>
        )
      }
    />
  );
}

interface LeftProps {
  readonly artefact: ArtefactOfKind<'requirement'>;
  /** Absent until they are read. */
  readonly lines: readonly ConditionInList[] | undefined;
  readonly current: ConditionId | null;
}

function LeftPage({ artefact: { summary, content }, lines, current }: LeftProps) {
  const { project, canEdit } = useFrame();
  const conditions = useMemo(() => lines?.filter((c) => c.state !== 'withdrawn') ?? [], [lines]);
  const [listing, setListing] = useState(false);
  const add = useAddCondition(summary.id, summary.version);
  const ask = useAskAbout(summary.id, content.text);
  const commands = useMemo<Command[]>(() => (canEdit ? [{ id: 'new-condition', title: `New condition on the whole of ${summary.id}`, keys: 'n', keyLabel: 'n', changes: true, run: () => add(null) }] : []), [add, canEdit, summary.id]);
  useCommands(commands);
  return (
    <div className="px-6 pb-12 pt-5">
      <div className="flex items-center gap-2 text-xs text-ink2">
        <Link to={address.basis(project, summary.id)} className="font-mono underline decoration-rule2">
          {summary.id}
        </Link>
        · v{summary.version} · {RISK_WORD[content.risk]} · {content.module}
        <Neighbours current={summary.id} />
      </div>
      <h1 className="mt-2 font-serif text-xl font-semibold">{content.title}</h1>
      <div className="mt-3">
        <RequirementText requirement={summary.id} text={content.text} conditions={conditions} current={current} {...(canEdit ? { onMark: add, onAsk: ask } : {})} />
      </div>
      {content.type === 'heading' && <p className="mt-3 rounded-field bg-ochre-wash px-3 py-1.5 text-sm text-ochre-ink">This is a heading: what hangs on it is counted nowhere. If it demands something, change its kind on its page in the Basis.</p>}
      <Section title="Conditions" aside={`${conditions.length} here`} actions={
          canEdit && (
            <>
              <TextButton className="text-ink2" onClick={() => add(null)}>
                Add one
              </TextButton>
              <TextButton className="text-ink2" onClick={() => setListing(true)}>
                Paste a checklist
              </TextButton>
            </>
          )
        }>
        <ConditionList requirement={summary.id} conditions={conditions} current={current} />
        {lines !== undefined && conditions.length === 0 && <p className="mt-3 text-ink2">None yet: this requirement is not analysed. Mark words in its text, or add a condition on the whole of it.</p>}
      </Section>
      {listing && <ChecklistDialog requirement={summary.id} version={summary.version} onClose={() => setListing(false)} />}
    </div>
  );
}

/** The requirement before and after this one in the outline. */
function Neighbours({ current }: { readonly current: RequirementId }) {
  const { project } = useFrame();
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const ids = orderOutline(requirements.filter((r) => r.state !== 'withdrawn')).map((e) => e.place.id);
  const at = ids.indexOf(current);
  const [before, after] = [ids[at - 1], ids[at + 1]];
  const look = 'grid size-6 place-items-center rounded hover:bg-page2';
  return (
    <span className="ml-auto flex text-ink2">
      {before !== undefined && (
        <Link className={look} to={address.conditions(project, before)} aria-label={`Requirement before: ${before}`} title={before}>
          <ChevronLeft size={15} aria-hidden="true" />
        </Link>
      )}
      <Link className={look} to={address.conditions(project)} aria-label={`All ${countOf(ids.length, 'requirement')}`} title="All requirements">
        <List size={15} aria-hidden="true" />
      </Link>
      {after !== undefined && (
        <Link className={look} to={address.conditions(project, after)} aria-label={`Next requirement: ${after}`} title={after}>
          <ChevronRight size={15} aria-hidden="true" />
        </Link>
      )}
    </span>
  );
}
