import { scenarioId, type FeatureId } from '@caderno/core/artefacts';
import { partId, takenApart, type Examples, type FeatureOutline, type PartId, type ReadScenario, type ScenarioStep } from '@caderno/core/scenarios';
import { DndContext, PointerSensor, closestCenter, useDraggable, useDroppable, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { countOf, locale } from '../look/index.ts';
import { useWording } from '../phrases/index.ts';

interface Props {
  readonly id: FeatureId;
  readonly outline: FeatureOutline;
  /** Puts a scenario in front of another part; null: nothing may be changed. */
  readonly onPlace: ((part: PartId, before: PartId | null) => void) | null;
  /** Draws a table of examples to be edited, the n-th of its outline; null: it is to be read. */
  readonly examplesOf: ((part: PartId, at: number) => ReactNode) | null;
}

/** A feature as pages: each scenario with its steps as lines, its tables as tables. A scenario is dragged by its handle. */
export function FeatureLines({ id, outline, onPlace, examplesOf }: Props) {
  const { description, scenarios, rules } = outline;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const drop = ({ active, over }: DragEndEvent): void => {
    if (over !== null && over.id !== active.id) onPlace?.(partId(String(active.id)), over.id === END ? null : partId(String(over.id)));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <div className="space-y-6 pt-4">
        {description !== '' && <p className="max-w-[60ch] whitespace-pre-line text-ink2">{description}</p>}
        {scenarios.map((scenario, i) => {
          const begun = scenario.rule !== null && scenario.rule !== scenarios[i - 1]?.rule ? rules.find((r) => r.part === scenario.rule) : undefined;
          return (
            <div key={scenario.part}>
              {begun !== undefined && (
                <header className="mb-3 border-b border-rule2 pb-1">
                  <h2 className="font-serif text-lg font-semibold">Rule: {begun.name}</h2>
                  {begun.description !== '' && <p className="whitespace-pre-line text-ink2">{begun.description}</p>}
                </header>
              )}
              <Scenario feature={id} scenario={scenario} common={outline.tags} movable={onPlace !== null} examplesOf={examplesOf} />
            </div>
          );
        })}
        {onPlace !== null && <End />}
      </div>
    </DndContext>
  );
}

/** Behind the last scenario. */
const END = 'end';

function End() {
  const { setNodeRef, isOver } = useDroppable({ id: END });
  return <div ref={setNodeRef} className={`h-4 print:hidden ${isOver ? 'border-t-2 border-blue' : ''}`} />;
}

/** The id of the section of a part on its page. */
export function sectionOf(part: PartId): string {
  return `part-${part}`;
}

/** `common`: tags of the feature, which say nothing of one scenario. */
function Scenario({ feature, scenario, common, movable, examplesOf }: { readonly feature: FeatureId; readonly scenario: ReadScenario; readonly common: readonly string[]; readonly movable: boolean; readonly examplesOf: Props['examplesOf'] }) {
  const { kind, number, name, keyword, description, steps, examples, part } = scenario;
  const { project } = useFrame();
  const takes = movable && kind === 'scenario';
  const { setNodeRef: setDrop, isOver } = useDroppable({ id: part, disabled: !takes });
  const { setNodeRef: setDrag, listeners, isDragging } = useDraggable({ id: part, disabled: !takes });
  const tags = scenario.tags.filter((tag) => !common.includes(tag));
  return (
    <section ref={setDrop} id={sectionOf(part)} aria-label={name === '' ? keyword : name} className={`group relative break-inside-avoid ${isOver && !isDragging ? 'shadow-[0_-2px_0_var(--color-blue)]' : ''} ${isDragging ? 'opacity-50' : ''}`}>
      {takes && (
        <span ref={setDrag} {...listeners} title="Drag the scenario; with the keyboard Alt ↑ and Alt ↓ in the text" className="absolute -left-4 top-1 hidden cursor-grab touch-none text-ink3 group-hover:block print:hidden">
          <GripVertical size={14} aria-hidden="true" />
        </span>
      )}
      <h3 className="flex flex-wrap items-baseline gap-x-2.5">
        <span className="w-6 shrink-0 font-mono text-xs text-ink2">{kind === 'scenario' && number > 0 ? `/${number}` : ''}</span>
        <span className="text-lg font-semibold">{name === '' ? keyword : name}</span>
        {tags.length > 0 && <span className="font-mono text-xs text-plum">{tags.join(' ')}</span>}
        {kind === 'scenario' && number > 0 && (
          <Link className="ml-auto text-xs text-ink2 underline decoration-rule2 underline-offset-2 print:hidden" to={address.reading(project, scenarioId(feature, number))}>
            Read through
          </Link>
        )}
      </h3>
      {description !== '' && <p className="ml-[2.1rem] whitespace-pre-line text-ink2">{description}</p>}
      <ol className="ml-[2.1rem] mt-1">
        {steps.map((step) => (
          <Step key={step.line} step={step} />
        ))}
      </ol>
      {examples.map((e, at) => (
        <ExamplesTable key={at} examples={e} edited={examplesOf?.(part, at) ?? null} />
      ))}
    </section>
  );
}

function Step({ step }: { readonly step: ScenarioStep }) {
  return (
    <li className="border-b border-rule py-1.5 last:border-b-0">
      <span className="mr-2 inline-block min-w-[3.2rem] text-right font-semibold text-blue">{step.keyword}</span>
      <StepText text={step.text} />
      <InFull text={step.text} />
      {step.table !== null && <Table rows={step.table} />}
      {step.docString !== null && <pre className="ml-[3.9rem] mt-1 overflow-x-auto border-l-2 border-rule2 pl-3 font-mono text-xs text-pine">{step.docString}</pre>}
    </li>
  );
}

/** Where a phrase says in short what shared steps say in full, the way to them. */
function InFull({ text }: { readonly text: string }) {
  const { project } = useFrame();
  const { own, details } = useWording(project);
  const shared = details.size === 0 ? undefined : details.get(takenApart(text, own).key)?.shared;
  if (shared === undefined) return null;
  return (
    <Link className="ml-3 text-xs text-ink2 underline decoration-rule2 underline-offset-2" title="What is to be done in full" to={address.shared(project, shared)}>
      in full: <span className="font-mono">{shared}</span>
    </Link>
  );
}

/** The text of a step with its values marked; those at the places that are `marked` more. */
export function StepText({ text, marked = [] }: { readonly text: string; readonly marked?: readonly number[] }) {
  const { own } = useWording(useFrame().project);
  const { values } = takenApart(text, own);
  const pieces = values.map((value, i) => ({ before: text.slice(i === 0 ? 0 : endOf(values[i - 1]), value.at), value }));
  return (
    <span>
      {pieces.map(({ before, value }, i) => (
        <span key={value.at}>
          {before}
          <span className={marked.includes(i) ? 'rounded-[3px] bg-blue-wash px-0.5 font-mono text-[0.92em] font-semibold' : value.kind === 'placeholder' ? 'cad-parameter' : 'font-mono text-[0.92em] underline decoration-ink3 decoration-dotted underline-offset-[3px]'}>{value.text}</span>
        </span>
      ))}
      {text.slice(endOf(values.at(-1)))}
    </span>
  );
}

function endOf(value: { readonly at: number; readonly text: string } | undefined): number {
  return value === undefined ? 0 : value.at + value.text.length;
}

function Table({ rows }: { readonly rows: readonly (readonly string[])[] }) {
  return (
    <table className="ml-[3.9rem] mt-1 font-mono text-xs">
      <tbody>
        {rows.map((row, i) => (
          <tr key={i} className="border-b border-rule">
            {row.map((cell, j) => (
              <td key={j} className="whitespace-pre-wrap py-0.5 pr-4">{cell}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Rows that a page shows; the text has them all. */
const MOST_ROWS = 200;

function ExamplesTable({ examples: { name, keyword, tags, header, rows }, edited }: { readonly examples: Examples; readonly edited: ReactNode }) {
  return (
    <div className="ml-[2.1rem] mt-2.5">
      <h4 className="flex items-baseline gap-2.5 text-sm font-semibold">
        {name === '' ? keyword : name}
        <span className="text-xs font-normal text-ink2">{countOf(rows.length, 'row')}</span>
        {tags.length > 0 && <span className="font-mono text-xs font-normal text-plum">{tags.join(' ')}</span>}
      </h4>
      {edited ?? <ReadRows header={header} rows={rows} />}
    </div>
  );
}

function ReadRows({ header, rows }: Pick<Examples, 'header' | 'rows'>) {
  return (
    <>
      <table className="mt-1 font-mono text-xs">
        <thead>
          <tr className="border-b border-ink text-left text-ink2">
            {header.map((cell, i) => (
              <th key={i} scope="col" className="py-1 pr-5 font-normal">{cell}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_ROWS).map(({ line, cells }) => (
            <tr key={line} className="border-b border-rule">
              {cells.map((cell, i) => (
                <td key={i} className="whitespace-pre-wrap py-1 pr-5">{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > MOST_ROWS && <p className="mt-1 text-xs text-ink2">and {(rows.length - MOST_ROWS).toLocaleString(locale())} more, in the text</p>}
    </>
  );
}
