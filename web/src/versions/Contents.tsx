import { isElementList, isRecord, type Json, type JsonElement } from '@caderno/core/versions';
import { parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useHeads } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { locale } from '../look/index.ts';
import { fieldWords, namesIn } from './Difference.tsx';
import { useNamed } from './useNamed.ts';

/** Says nothing to a reader: names of what is elsewhere, or how something came about. */
const UNSAID: ReadonlySet<string> = new Set(['id', 'kind', 'title', 'origin', 'dismissals', 'seenVersion', 'anchor', 'execution', 'caseKind', 'attachments', 'leftOut', 'order']);

/** What ids stand for: a cell by its parameter. */
const Names = createContext<ReadonlyMap<string, string>>(new Map());

interface Props {
  readonly content: unknown;
  /** What stands at the end of a field’s heading, by its name. */
  readonly beside?: (field: string) => ReactNode;
}

/** All that a version says, field by field, to be read through. */
export function Contents({ content, beside }: Props) {
  const name = useNamed();
  const named = useMemo(() => name(content), [content, name]);
  const names = useMemo(() => new Map(namesIn(named)), [named]);
  if (!isRecord(named)) return null;
  return (
    <Names value={names}>
    <div className="mt-2 divide-y divide-rule">
      {Object.entries(named).map(([name, value]) =>
        UNSAID.has(name) || isEmpty(value) ? null : (
          <section key={name} className="group py-3" aria-label={fieldWords(name)}>
            <h3 className="flex items-baseline gap-3 text-sm font-semibold">
              {fieldWords(name)}
              {beside?.(name)}
            </h3>
            <div className="mt-1">
              <Said value={value} />
            </div>
          </section>
        ),
      )}
    </div>
    </Names>
  );
}

function isEmpty(value: Json): boolean {
  if (value === null || value === '' || value === false) return true;
  if (Array.isArray(value)) return value.length === 0;
  return isRecord(value) && Object.entries(value).every(([name, v]) => UNSAID.has(name) || isEmpty(v));
}

function Said({ value }: { readonly value: Json }): ReactNode {
  if (typeof value === 'string') return <Text text={value} />;
  if (isElementList(value) && value.every((element) => isRecord(element.cells))) return <Rows rows={value} />;
  if (isElementList(value)) return <Elements list={value} />;
  if (Array.isArray(value)) return <span>{value.map((v) => (typeof v === 'string' || typeof v === 'number' ? String(v) : JSON.stringify(v))).join(', ')}</span>;
  if (isRecord(value)) return <Fields record={value} />;
  return <span>{value === true ? 'yes' : String(value)}</span>;
}

/** An artefact is named by its title, a word of the program is written as one says it. */
function Text({ text }: { readonly text: string }) {
  if (parseArtefactId(text) !== null) return <Named id={text as ArtefactId} />;
  return <p className="whitespace-pre-wrap break-words">{/^[a-z]+([A-Z][a-z]+)+$/.test(text) ? fieldWords(text).toLowerCase() : text}</p>;
}

function Named({ id }: { readonly id: ArtefactId }) {
  const { project } = useFrame();
  const title = useHeads(project)?.find((h) => h.id === id)?.title ?? '';
  return (
    <Link to={address.artefact(project, id)} className="block underline decoration-rule2 underline-offset-2 hover:decoration-current">
      <span className="font-mono text-xs">{id}</span> {title}
    </Link>
  );
}

function Rows({ rows }: { readonly rows: readonly JsonElement[] }) {
  const names = useContext(Names);
  const columns = [...new Set(rows.flatMap((row) => (isRecord(row.cells) ? Object.keys(row.cells) : [])))];
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Rows">
      <table className="text-sm">
        <thead>
          <tr className="border-b border-rule2 text-left text-xs text-ink2">
            <th className="py-0.5 pr-5 font-normal" />
            {columns.map((column) => (
              <th key={column} className="py-0.5 pr-5 font-mono font-normal">
                {names.get(column) ?? column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_ROWS).map((row) => (
            <tr key={row.id} className="border-b border-rule align-top">
              <td className="py-0.5 pr-5">{typeof row.name === 'string' ? row.name : ''}</td>
              {columns.map((column) => (
                <td key={column} className="py-0.5 pr-5 font-mono text-xs leading-5">
                  {isRecord(row.cells) ? String(row.cells[column] ?? '') : ''}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > MOST_ROWS && <p className="mt-1 text-xs text-ink2">{(rows.length - MOST_ROWS).toLocaleString(locale())} more rows, on the page itself.</p>}
    </div>
  );
}

/** Rows that are read here; longer tables are looked at on their own page. */
const MOST_ROWS = 200;

function Fields({ record }: { readonly record: { readonly [name: string]: Json } }) {
  const names = useContext(Names);
  return (
    <dl>
      {Object.entries(record).map(([name, value]) =>
        UNSAID.has(name) || isEmpty(value) ? null : (
          <div key={name} className="flex gap-3">
            <dt className="w-24 shrink-0 truncate text-xs leading-5 text-ink2">{names.get(name) ?? fieldWords(name)}</dt>
            <dd className="min-w-0">
              <Said value={value} />
            </dd>
          </div>
        ),
      )}
    </dl>
  );
}

/** Links are named, whatever else is listed is numbered. */
function Elements({ list }: { readonly list: readonly JsonElement[] }) {
  if (list.every((element) => parseArtefactId(element.id) !== null)) return <>{list.map((element) => <Named key={element.id} id={element.id as ArtefactId} />)}</>;
  return (
    <ol className="space-y-1">
      {list.map((element, i) => (
        <li key={element.id} className="flex gap-3">
          <span className="w-5 shrink-0 text-right font-mono text-xs leading-6 text-ink2">{i + 1}</span>
          <div className="min-w-0 flex-1">
            <Element element={element} />
          </div>
        </li>
      ))}
    </ol>
  );
}

/** Texts of an element in the order in which one reads them. */
const SAYING = ['name', 'title', 'text', 'action', 'quote'];

function textsOf(element: JsonElement): string[] {
  return SAYING.flatMap((name) => (typeof element[name] === 'string' && element[name] !== '' ? [element[name]] : []));
}

function Element({ element }: { readonly element: JsonElement }) {
  const { expected } = element;
  if (isElementList(element.lines)) return <pre className="overflow-x-auto whitespace-pre-wrap font-mono text-xs leading-5">{element.lines.map((line) => String(line.text ?? '')).join('\n')}</pre>;
  const rest = Object.fromEntries(Object.entries(element).filter(([name]) => !SAYING.includes(name) && name !== 'expected'));
  return (
    <>
      <p className="whitespace-pre-wrap break-words">{textsOf(element).join(' · ')}</p>
      {typeof expected === 'string' && expected !== '' && <p className="whitespace-pre-wrap break-words text-ink2">⇒ {expected}</p>}
      {!isEmpty(rest) && <Fields record={rest} />}
    </>
  );
}
