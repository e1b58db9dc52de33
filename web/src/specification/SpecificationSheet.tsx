import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import type { Standing } from '@caderno/core/coverage';
import type { ReactNode } from 'react';
import { KIND_NAME, STANDING_WORD, StandingShape, countOf, dateAndTime } from '../look/index.ts';
import { CasePart } from './CasePart.tsx';
import { ConditionPart } from './ConditionPart.tsx';
import { PartHead } from './PartHead.tsx';
import { RequirementPart } from './RequirementPart.tsx';
import { RowsTable } from './RowsTable.tsx';
import { SpecificationFeature } from './SpecificationFeature.tsx';
import { StepsTable } from './StepsTable.tsx';
import { Told } from './Told.tsx';
import { anchorOf } from './anchor.ts';
import type { DrawnSpecification } from './useSpecification.ts';

interface Props {
  readonly specified: DrawnSpecification;
  /** What of the project it is of, in words; empty: all of it. */
  readonly of: string;
}

/** A design as a document: what is in it with its pages, then everything in reading order. */
export function SpecificationSheet({ specified, of }: Props) {
  const { read, requirements, conditions, cases, features, shared, dataSets, drawings } = specified;
  const titles = new Map<ArtefactId, string>(read.artefacts.map((a) => [a.id, a.content.title]));
  return (
    <Told value={titles}>
      <header className="border-b border-ink pb-3">
        <h1 className="spec-title font-serif text-2xl font-semibold">Test design of {read.project}</h1>
        <p className="mt-1 text-sm text-ink2">
          {of === '' ? 'All of it' : `Of ${of}, with all that it uses`}, as saved until {dateAndTime(read.at)}
        </p>
        <p className="mt-1 text-sm">
          {COUNTED.flatMap((kind) => counted(read.artefacts, kind)).join(', ')}
        </p>
        <ul aria-label="Standings" className="mt-1 flex flex-wrap gap-x-4 text-xs text-ink2">
          {STANDINGS_READ.map((standing) => (
            <li key={standing} className="inline-flex items-center gap-1.5">
              <StandingShape standing={standing} /> {STANDING_WORD[standing]}
            </li>
          ))}
        </ul>
        {read.broken.length > 0 && <p className="mt-1 text-sm text-brick">What cannot be read is not in it: {read.broken.join(', ')}.</p>}
      </header>
      <Contents specified={specified} />
      <Chapter name="Requirements and conditions" isThere={requirements.length + conditions.length > 0}>
        {requirements.map((requirement) => (
          <RequirementPart key={requirement.id} requirement={requirement} drawings={drawings} />
        ))}
        {conditions.length > 0 && <h3 className="spec-keep mt-8 font-serif text-lg font-semibold">Conditions of none of these requirements</h3>}
        {conditions.map((condition) => (
          <ConditionPart key={condition.id} condition={condition} drawing={drawings.get(condition.id)} />
        ))}
      </Chapter>
      <Chapter name="Cases" isThere={cases.length > 0}>
        {cases.map(({ module, cases: own }) => (
          <section key={module}>
            <h3 className="spec-keep mt-6 font-serif text-lg font-semibold">{module === '' ? 'Without a module' : module}</h3>
            {own.map((one) => (
              <CasePart key={one.id} testCase={one} />
            ))}
          </section>
        ))}
      </Chapter>
      <Chapter name="Features" isThere={features.length > 0}>
        {features.map((feature) => (
          <SpecificationFeature key={feature.id} feature={feature} />
        ))}
      </Chapter>
      <Chapter name="Shared steps" isThere={shared.length > 0}>
        {shared.map((one) => (
          <section key={one.id} className="mt-6">
            <PartHead of={one} />
            {one.content.purpose.trim() !== '' && <p className="mt-1 whitespace-pre-line text-sm">{one.content.purpose}</p>}
            <StepsTable steps={one.content.steps} />
          </section>
        ))}
      </Chapter>
      <Chapter name="Data sets" isThere={dataSets.length > 0}>
        {dataSets.map((set) => (
          <section key={set.id} className="mt-6">
            <PartHead of={set} />
            {set.content.purpose.trim() !== '' && <p className="mt-1 whitespace-pre-line text-sm">{set.content.purpose}</p>}
            <RowsTable parameters={set.content.parameters} rows={set.content.rows} />
          </section>
        ))}
      </Chapter>
    </Told>
  );
}

/** What the shapes at coverage items say. */
const STANDINGS_READ = ['shown', 'linked', 'gap', 'waiting', 'suspect', 'leftOut'] as const satisfies readonly Standing[];

const COUNTED = ['requirement', 'condition', 'case', 'feature', 'shared', 'dataSet'] as const satisfies readonly ArtefactKind[];

/** How many of a kind there are, in words; headings are no requirements. */
function counted(artefacts: DrawnSpecification['read']['artefacts'], kind: ArtefactKind): string[] {
  const count = artefacts.filter((a) => a.kind === kind && (a.kind !== 'requirement' || a.content.type !== 'heading')).length;
  return count === 0 ? [] : [countOf(count, ...KIND_NAME[kind])];
}

function Chapter({ name, isThere, children }: { readonly name: string; readonly isThere: boolean; readonly children: ReactNode }) {
  if (!isThere) return null;
  return (
    <section className="spec-chapter mt-10">
      <h2 id={chapterAnchor(name)} className="spec-keep border-b border-ink pb-1 font-serif text-xl font-semibold">
        {name}
      </h2>
      {children}
    </section>
  );
}

/** What stands where: chapters, and in them everything that has a title of its own. Conditions stand below their requirements. */
function Contents({ specified: { requirements, cases, features, shared, dataSets } }: { readonly specified: DrawnSpecification }) {
  return (
    <section aria-label="Contents" className="mt-6">
      <h2 className="spec-keep font-serif text-lg font-semibold">Contents</h2>
      <ContentsPart name="Requirements and conditions" entries={requirements} depthOf={(r) => r.depth} />
      <ContentsPart name="Cases" entries={cases.flatMap((m) => m.cases)} />
      <ContentsPart name="Features" entries={features} />
      <ContentsPart name="Shared steps" entries={shared} />
      <ContentsPart name="Data sets" entries={dataSets} />
    </section>
  );
}

function ContentsPart<E extends { readonly content: { readonly title: string } }>({ name, entries, depthOf }: { readonly name: string; readonly entries: readonly (E & { readonly id: ArtefactId })[]; readonly depthOf?: (entry: E) => number }) {
  if (entries.length === 0) return null;
  return (
    <ol className="mt-2 text-sm">
      <li className="spec-keep">
        <a href={`#${chapterAnchor(name)}`} className="spec-entry flex min-h-6 items-center justify-between gap-4 border-b border-rule py-0.5 font-semibold">
          {name}
        </a>
      </li>
      {entries.map((entry) => (
        <li key={entry.id} className="spec-whole">
          <a href={`#${anchorOf(entry.id)}`} className="spec-entry flex min-h-6 gap-3 py-0.5 after:ml-auto after:font-mono after:text-xs" style={{ paddingLeft: `${1 + (depthOf?.(entry) ?? 0)}rem` }}>
            <span className="font-mono text-xs leading-5 text-ink2">{entry.id}</span>
            <span className="min-w-0">{entry.content.title || 'without a title'}</span>
          </a>
        </li>
      ))}
    </ol>
  );
}

function chapterAnchor(name: string): string {
  return `spec-${name.toLowerCase().replaceAll(' ', '-')}`;
}
