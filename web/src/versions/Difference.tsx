import { diffContent, diffWords, isRecord, unmoved, type ContentDiff, type FieldDiff, type Json } from '@caderno/core/versions';
import type { ReactNode } from 'react';
import { asJson } from './editState.ts';

/** What changed between two contents: field by field, element by element, word by word. */
export function Difference({ from, to }: { readonly from: unknown; readonly to: unknown }) {
  const diff = diffContent(asJson(from), asJson(to));
  if (diff.kind === 'same') return <p className="mt-4 text-ink2">These two hold the same.</p>;
  if (diff.kind !== 'record') return <ValueChange diff={diff} before={asJson(from)} />;
  return (
    <div className="mt-2 divide-y divide-rule">
      {Object.entries(diff.fields).map(([name, field]) => (
        <section key={name} className="py-4" aria-label={name}>
          <h3 className="text-xs font-semibold text-ink2">{fieldWords(name)}</h3>
          <div className="mt-1.5">
            <ValueChange diff={field} before={isRecord(asJson(from)) ? (asJson(from) as Record<string, Json>)[name] : undefined} />
          </div>
        </section>
      ))}
    </div>
  );
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
      return (
        <dl className="space-y-1.5">
          {Object.entries(diff.fields).map(([name, field]) => (
            <div key={name} className="flex gap-3">
              <dt className="w-24 shrink-0 text-xs leading-5 text-ink2">{fieldWords(name)}</dt>
              <dd className="min-w-0">
                <ValueChange diff={field} before={isRecord(before) ? before[name] : undefined} />
              </dd>
            </div>
          ))}
        </dl>
      );
    case 'list':
      return <ListChange diff={diff} before={before} />;
  }
}

function ListChange({ diff, before }: { readonly diff: Extract<ContentDiff, { kind: 'list' }>; readonly before: Json | undefined }) {
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
          <Entry key={id} word={moved ? `moved from ${diff.from.indexOf(id) + 1} to ${place + 1}` : `changed, ${place + 1}`} ink="text-ochre-ink">
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
      {diffWords(from, to).map((part, i) => {
        if (part.kind === 'added') return <ins key={i} className="bg-pine-wash text-pine no-underline">{part.text}</ins>;
        if (part.kind === 'removed') return <del key={i} className="bg-brick-wash text-brick">{part.text}</del>;
        return <span key={i}>{part.text}</span>;
      })}
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

function fieldWords(name: string): string {
  const words = name.replaceAll(/([A-Z])/g, ' $1').toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}
