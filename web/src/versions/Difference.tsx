import { diffContent, isElementList, isRecord, unmoved, type ContentDiff, type FieldDiff, type Json } from '@caderno/core/versions';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { WordDiff } from './WordDiff.tsx';
import { useNamed } from './useNamed.ts';

/** What ids within the two contents are called: a cell by its parameter, a step by its number. */
const Names = createContext<ReadonlyMap<string, string>>(new Map());

/** What changed between two contents: field by field, element by element, word by word. `beside`: what stands at the end of a field’s heading. */
export function Difference({ from, to, beside }: { readonly from: unknown; readonly to: unknown; readonly beside?: (field: string) => ReactNode }) {
  const named = useNamed();
  const before = useMemo(() => named(from), [from, named]);
  const after = useMemo(() => named(to), [named, to]);
  const diff = useMemo(() => diffContent(before, after), [after, before]);
  const names = useMemo(() => new Map([...namesIn(before), ...namesIn(after)]), [after, before]);
  if (diff.kind === 'same') return <p className="mt-4 text-ink2">These two hold the same.</p>;
  if (diff.kind !== 'record' || !isRecord(before)) return <ValueChange diff={diff} before={before} />;
  return (
    <Names value={names}>
      <div className="mt-2 divide-y divide-rule">
        {Object.entries(diff.fields).map(([name, field]) => (
          <section key={name} className="py-4" aria-label={name}>
            <h3 className="flex items-baseline gap-3 text-sm font-semibold">
              {fieldWords(name)}
              {beside?.(name)}
            </h3>
            <div className="mt-1.5">
              <ValueChange diff={field} before={before[name]} />
            </div>
          </section>
        ))}
      </div>
    </Names>
  );
}

/** Names of what has one in a content, by their ids. */
export function namesIn(content: Json): [string, string][] {
  if (!isRecord(content)) return [];
  const own = isRecord(content.own ?? null) ? Object.keys(content.own ?? {}).map((name): [string, string] => [name, name]) : [];
  return own.concat(Object.values(content).flatMap((list): [string, string][] =>
    isElementList(list) ? list.flatMap((element): [string, string][] => (typeof element.name === 'string' && element.name !== '' ? [[element.id, element.name]] : [])) : [],
  ));
}

function ValueChange({ diff, before }: { readonly diff: FieldDiff; readonly before: Json | undefined }): ReactNode {
  switch (diff.kind) {
    case 'same':
      return null;
    case 'added':
      return <Whole kind="added" value={diff.to} />;
    case 'removed':
      return <Whole kind="removed" value={diff.from} />;
    case 'replaced':
      return <Replaced from={diff.from} to={diff.to} />;
    case 'record':
      return <RecordChange fields={diff.fields} before={before} />;
    case 'list':
      return <ListChange diff={diff} before={before} />;
  }
}

function RecordChange({ fields, before }: { readonly fields: Readonly<Record<string, FieldDiff>>; readonly before: Json | undefined }) {
  const names = useContext(Names);
  return (
    <div className="space-y-1.5">
      {Object.entries(fields).map(([name, field]) => {
        const inner = <ValueChange diff={field} before={isRecord(before) ? before[name] : undefined} />;
        // A record of records (the cells of a row) needs no heading of its own.
        if (field.kind === 'record') return <div key={name}>{inner}</div>;
        return (
          <div key={name} className="flex gap-3">
            <span className="w-24 shrink-0 truncate text-xs leading-5 text-ink2">{names.get(name) ?? fieldWords(name)}</span>
            <div className="min-w-0">{inner}</div>
          </div>
        );
      })}
    </div>
  );
}

function ListChange({ diff, before }: { readonly diff: Extract<ContentDiff, { kind: 'list' }>; readonly before: Json | undefined }) {
  const names = useContext(Names);
  const stayed = unmoved(diff.from, diff.to);
  const elements = Array.isArray(before) ? (before as readonly Json[]) : [];
  const old = (id: string): Json | undefined => elements.find((e) => isRecord(e) && e.id === id);
  return (
    <ul className="space-y-2">
      {diff.removed.map((element) => (
        <Entry key={element.id} word="removed" ink="text-brick">
          <Whole kind="removed" value={element} />
        </Entry>
      ))}
      {diff.to.map((id, place) => {
        const added = diff.added.find((e) => e.id === id);
        const changed = diff.changed[id];
        const moved = added === undefined && !stayed.has(id);
        if (added === undefined && changed === undefined && !moved) return null;
        if (added !== undefined) {
          return (
            <Entry key={id} word={`added as ${place + 1}`} ink="text-pine">
              <Whole kind="added" value={added} />
            </Entry>
          );
        }
        return (
          <Entry key={id} word={`${place + 1} ${names.get(id) ?? ''} ${moved ? `moved, was ${diff.from.indexOf(id) + 1}` : 'changed'}`} ink="text-ochre-ink">
            {changed === undefined ? <span>{elementWords(old(id) ?? id)}</span> : <ValueChange diff={changed} before={old(id)} />}
          </Entry>
        );
      })}
    </ul>
  );
}

function Entry({ word, ink, children }: { readonly word: string; readonly ink: string; readonly children: ReactNode }) {
  return (
    <li className="flex gap-3">
      <span className={`w-32 shrink-0 text-xs font-semibold leading-5 ${ink}`}>{word}</span>
      <div className="min-w-0 flex-1">{children}</div>
    </li>
  );
}

function Replaced({ from, to }: { readonly from: Json; readonly to: Json }) {
  if (typeof from !== 'string' || typeof to !== 'string') {
    return (
      <p>
        <del className="bg-brick-wash text-brick">{elementWords(from)}</del> <ins className="bg-pine-wash text-pine no-underline">{elementWords(to)}</ins>
      </p>
    );
  }
  return (
    <p className="whitespace-pre-wrap break-words">
      <WordDiff from={from} to={to} />
    </p>
  );
}

function Whole({ kind, value }: { readonly kind: 'added' | 'removed'; readonly value: Json }) {
  const text = elementWords(value);
  return kind === 'added' ? <ins className="bg-pine-wash text-pine no-underline">{text}</ins> : <del className="bg-brick-wash text-brick">{text}</del>;
}

/** An element in one line: its texts, without the id. */
function elementWords(value: Json): string {
  if (!isRecord(value)) return Array.isArray(value) ? value.map(elementWords).join(', ') : String(value);
  const parts = Object.entries(value).filter(([name, v]) => name !== 'id' && name !== 'kind' && v !== '' && v !== null);
  return parts.map(([, v]) => elementWords(v)).filter((t) => t !== '').join(' · ') || String(value.id ?? '');
}

/** What a field of a content is called. */
export function fieldWords(name: string): string {
  if (name === 'own') return 'Fields';
  const words = name.replaceAll(/([A-Z])/g, ' $1').toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}
