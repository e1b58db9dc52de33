import { scenarioId, type FeatureId } from '@caderno/core/artefacts';
import { folderOf, instancesOf, outlineOf, pathOfLine, textOf, tidied, withMoved, withName, withPlaced, withText, type FeatureContent, type FeatureOutline, type FeaturePart, type PartId } from '@caderno/core/scenarios';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, type To } from 'react-router';
import { useModules } from '../api/index.ts';
import { Loading, TextInput, someIds } from '../artefacts/index.ts';
import { address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { TextButton, countOf, usePrinting } from '../look/index.ts';
import { useWording } from '../phrases/index.ts';
import { ArtefactHead, useEditable, useEditing, type EditableArtefact, type Editing } from '../versions/index.ts';
import { usePhrases, type ShownPhrase } from './usePhrases.ts';
import { FeatureEditor } from './editor/FeatureEditor.tsx';
import { offers } from './editor/offers.ts';
import { FeatureLines, sectionOf } from './FeatureLines.tsx';
import { FeatureMargin, lineOf } from './FeatureMargin.tsx';
import { MoveScenarioDialog } from './MoveScenarioDialog.tsx';
import { ExamplesGrid } from './examples/ExamplesGrid.tsx';
import { useClone } from './useClone.ts';
import { useCoveredScenarios } from './useCoveredScenarios.ts';
import { useShownLine } from './useShownLine.ts';

/** A feature: its text, or its scenarios as pages; what is wrong in it, and what it is written for. */
export function FeaturePage({ id }: { readonly id: FeatureId }) {
  const { data, error } = useEditable('feature', id);
  return data === undefined ? <Loading error={error} /> : <Feature key={id} artefact={data} />;
}

type Form = 'text' | 'pages';

function Feature({ artefact }: { readonly artefact: EditableArtefact<'feature'> }) {
  const { project, canEdit } = useFrame();
  const editing = useEditing('feature', artefact);
  const { content, update } = editing;
  const { id, state } = artefact.summary;
  const modules = useModules(project);
  const [form, setForm] = useState<Form>('text');
  const [line, setLine] = useState(0);
  const settled = useSettled(content);
  const outline = useMemo(() => outlineOf(settled), [settled]);
  const covered = useCoveredScenarios(id, settled, outline);
  const write = useWriting(content, update);
  const printing = usePrinting();
  const { show, showLine } = useShownLine(outline);
  const showInText = useCallback(
    (at: number): void => {
      setForm('text');
      showLine(at);
    },
    [showLine],
  );
  const here = partAt(content, line);
  const phrases = usePhrases().data?.phrases ?? NO_PHRASES;
  const { own } = useWording(project);
  const offered = useMemo(() => offers(phrases, own), [own, phrases]);
  usePageCommands(here, update, write, content, line, showLine);
  const folder = folderOf(content.path);
  const clone = useClone();
  const place = (part: PartId, before: PartId | null): void => {
    const ids = someIds();
    update((c) => withPlaced(c, part, before, ids()));
  };
  const [moving, setMoving] = useState<FeaturePart | null>(null);
  return (
    <article className="px-7 pb-16 pt-5">
      <ArtefactHead
        summary={artefact.summary}
        state={state}
        editing={editing}
        onTitle={(title) => update((c) => withName(c, title))}
        onEnter={() => showLine(outline.scenarios[0]?.line ?? 0)}
        rare={
          <>
            <TextInput label="File" value={content.path} readOnly={!canEdit} onChange={(path) => update((c) => ({ ...c, path }))} className="font-mono" />
            <TextInput label="Owner" value={content.owner} readOnly={!canEdit} onChange={(owner) => update((c) => ({ ...c, owner }))} />
            {canEdit && <TextButton className="text-xs" onClick={() => void clone(content)}>Clone</TextButton>}
          </>
        }
        rareWords={[folder === '' ? content.path : `${folder}/`]}
      >
        <TextInput label="Module" value={content.module} readOnly={!canEdit} onChange={(module) => update((c) => ({ ...c, module }))} suggestions={modules} />
        <span className="whitespace-nowrap">{counted(outline)}</span>
      </ArtefactHead>
      <div className="mt-3 flex gap-5 max-narrow:flex-col">
        <div className="min-w-0 flex-1">
          <div className="flex items-center gap-4 border-b border-rule2 pb-1.5 text-sm print:hidden">
            <FormChoice form={form} onForm={setForm} />
            {content.lastNumber > 0 && (
              <Link className="underline decoration-rule2 underline-offset-2" to={readingOf(project, id, content, form === 'text' ? here : undefined)}>
                Read through
              </Link>
            )}
            {canEdit && form === 'text' && here?.kind === 'scenario' && (
              <span className="ml-auto flex items-center gap-4">
                {outline.scenarios.some((s) => s.part === here.id && s.examples.length > 0) && (
                  <TextButton title="The rows of this outline with the habits of a spreadsheet" onClick={() => (setForm('pages'), toScenario(here.id))}>
                    Rows as a grid
                  </TextButton>
                )}
                <TextButton onClick={() => setMoving(here)}>Move to another feature</TextButton>
              </span>
            )}
            {canEdit && form === 'text' && (
              <TextButton className={here?.kind === 'scenario' ? '' : 'ml-auto'} title="Sets lines in by what they are, and aligns tables" onClick={() => write(tidied(plainText(content)))}>
                Tidy up
              </TextButton>
            )}
          </div>
          {form === 'text' && (
            // An editor draws what is in view; on paper a feature stands whole, as pages.
            <div data-place={pathOfLine(content, line)} className={printing ? 'hidden' : ''}>
              <FeatureEditor text={plainText(content)} readOnly={!canEdit} onChange={write} show={show} onLine={setLine} own={own} offers={offered} />
            </div>
          )}
          {(form === 'pages' || printing) && <FeatureLines id={id} outline={outline} onPlace={canEdit ? place : null} examplesOf={printing ? null : (part, at) => <ExamplesGrid content={content} part={part} at={at} covered={covered} canEdit={canEdit} update={update} />} />}
        </div>
        <FeatureMargin id={id} version={artefact.summary.version} content={settled} outline={outline} covered={covered} here={here?.id} canEdit={canEdit} update={update} onShow={showInText} />
      </div>
      {moving !== null && <MoveScenarioDialog id={id} content={content} version={editing.version} part={moving} onClose={() => setMoving(null)} />}
    </article>
  );
}

/** Reads the scenario at the cursor, or all of the feature one below the other. */
function readingOf(project: string, id: FeatureId, { parts }: FeatureContent, here: FeaturePart | undefined): To {
  if (here?.kind === 'scenario' && here.number > 0) return address.reading(project, scenarioId(id, here.number));
  const all = parts.filter((p) => p.kind === 'scenario' && p.number > 0).map((p) => scenarioId(id, p.number));
  return { pathname: address.readingSelection(project), search: `cases=${all.join(',')}` };
}

/** Where the pages are drawn, the scenario comes into view. */
function toScenario(part: PartId): void {
  requestAnimationFrame(() => requestAnimationFrame(() => document.getElementById(sectionOf(part))?.scrollIntoView({ block: 'start' })));
}

const NO_PHRASES: readonly ShownPhrase[] = [];

/** Milliseconds after the last key until what the text says is told beside it. */
const SETTLE_MS = 150;

/** The content as its text was when nobody typed for a moment: a key in a long feature is not to wait for what stands beside it. */
function useSettled(content: FeatureContent): FeatureContent {
  const [settled, setSettled] = useState(content);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(content), SETTLE_MS);
    return () => clearTimeout(timer);
  }, [content]);
  return content.parts.every((part, i) => part.lines === settled.parts[i]?.lines) ? content : settled;
}

/** The text as an editor shows it: without what ends a line, and the mark before the first. */
function plainText(content: FeatureContent): string {
  return textOf(content).replace(/^\uFEFF/, '').replaceAll('\r\n', '\n');
}

/** Puts another text in place of the feature's. Parts that were there a while ago are known again. */
function useWriting(content: FeatureContent, update: Editing<FeatureContent>['update']): (text: string) => void {
  const known = useRef(new Map<PartId, FeaturePart>());
  useEffect(() => {
    for (const part of content.parts) known.current.set(part.id, part);
  }, [content.parts]);
  return (text) => {
    const ids = someIds();
    const remembered = [...known.current.values()];
    update((c) => withText(c, text, ids(), remembered));
  };
}

function partAt({ parts }: FeatureContent, line: number): FeaturePart | undefined {
  let before = 0;
  return parts.find((part) => (before += part.lines.length) > line);
}

function usePageCommands(here: FeaturePart | undefined, update: Editing<FeatureContent>['update'], write: (text: string) => void, content: FeatureContent, line: number, showLine: (line: number) => void): void {
  const { canEdit } = useFrame();
  // The commands stay the same while somebody types.
  const latest = useRef({ here, write, content, line, showLine });
  useEffect(() => {
    latest.current = { here, write, content, line, showLine };
  });
  const commands = useMemo<Command[]>(() => {
    if (!canEdit) return [];
    const move = (by: -1 | 1): void => {
      const { here: part, content: before, line: at, showLine: show } = latest.current;
      if (part === undefined) return;
      const ids = someIds();
      const moved = withMoved(before, part.id, by, ids());
      update((c) => withMoved(c, part.id, by, ids()));
      // The cursor goes along, so that the next key moves the same scenario on.
      show(at - lineOf(before, part.id) + lineOf(moved, part.id));
    };
    return [
      { id: 'scenario-up', title: 'Move the scenario up', keys: 'Alt+ArrowUp', keyLabel: 'Alt ↑', changes: true, whileTyping: true, run: () => move(-1) },
      { id: 'scenario-down', title: 'Move the scenario down', keys: 'Alt+ArrowDown', keyLabel: 'Alt ↓', changes: true, whileTyping: true, run: () => move(1) },
      { id: 'tidy-feature', title: 'Tidy up the feature', changes: true, run: () => latest.current.write(tidied(plainText(latest.current.content))) },
    ];
  }, [canEdit, update]);
  useCommands(commands);
}

function counted({ scenarios }: FeatureOutline): string {
  const written = scenarios.filter((s) => s.kind === 'scenario');
  const instances = written.reduce((sum, s) => sum + instancesOf(s), 0);
  return `${countOf(written.length, 'scenario')}${instances === written.length ? '' : `, ${countOf(instances, 'instance')}`}`;
}

function FormChoice({ form, onForm }: { readonly form: Form; readonly onForm: (form: Form) => void }) {
  const look = (on: boolean): string => (on ? 'font-semibold text-ink' : 'text-ink2 underline decoration-rule2 underline-offset-4');
  return (
    <>
      <button type="button" aria-pressed={form === 'text'} className={look(form === 'text')} onClick={() => onForm('text')}>
        Text
      </button>
      <button type="button" aria-pressed={form === 'pages'} className={look(form === 'pages')} onClick={() => onForm('pages')}>
        Pages
      </button>
    </>
  );
}
