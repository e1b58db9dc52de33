import { itemsToShow, type StandingCounts } from '@caderno/core/coverage';
import { BAR_ORDER, hasBars, moreRows, type ReportCell, type ReportCurve, type ReportDocument, type ReportSection, type ReportTable } from '@caderno/core/report';
import { useCallback, useMemo } from 'react';
import { Link } from 'react-router';
import { Curves, type Curve } from '../charts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { STANDING_WORD, StandingShape } from '../look/index.ts';
import { dayWords } from './reportWords.ts';

/** A report as it stands on paper; what it names is a click away. */
export function ReportSheet({ document: { title, of, note, figures, sections } }: { readonly document: ReportDocument }) {
  return (
    <article className="mx-auto max-w-[52rem] px-8 pb-12 pt-5 max-phone:px-4 print:max-w-none print:px-0 print:pt-0">
      <h2 className="font-serif text-2xl font-semibold">{title}</h2>
      <p className="text-xs text-ink2">{of}</p>
      {note !== '' && <p className="mt-3 whitespace-pre-line border-l-2 border-blue pl-3">{note}</p>}
      <ul className="mt-4 flex flex-wrap justify-between gap-x-5 gap-y-2" aria-label="Figures">
        {figures.map(({ value, words }) => (
          <li key={words} className="max-w-[8rem]">
            <span className="block whitespace-nowrap font-serif text-3xl font-bold leading-9">{value}</span>
            <span className="block text-xs leading-4 text-ink2">{words}</span>
          </li>
        ))}
      </ul>
      {sections.map((section) => (
        <Part key={section.title} section={section} />
      ))}
    </article>
  );
}

function Part({ section: { title, lines, tables, curve } }: { readonly section: ReportSection }) {
  return (
    <section className={`mt-6 print:mt-4 ${curve === null ? '' : 'break-inside-avoid'}`} aria-label={title}>
      <h3 className="break-after-avoid border-b border-ink pb-1 font-serif text-lg font-semibold leading-6">{title}</h3>
      {lines.map((line) => (
        <p key={line} className="mt-2 text-sm">
          {line}
        </p>
      ))}
      {curve !== null && <OverTime curve={curve} />}
      {tables.some(hasBars) && <Legend />}
      {tables.map((table) => (
        <Table key={table.name} table={table} />
      ))}
    </section>
  );
}

/** What the parts of a bar say. */
function Legend() {
  return (
    <ul aria-label="Parts of a bar" className="mt-2 flex flex-wrap gap-x-4 text-xs text-ink2">
      {BAR_ORDER.map((standing) => (
        <li key={standing} className="inline-flex items-center gap-1.5">
          <StandingShape standing={standing} /> {STANDING_WORD[standing]}
        </li>
      ))}
    </ul>
  );
}

function Table({ table }: { readonly table: ReportTable }) {
  const more = moreRows(table);
  const isNumber = (column: number): boolean => table.rows[0]?.[column]?.kind === 'number';
  return (
    <div className="mt-2 overflow-x-auto print:mt-1 print:overflow-visible" tabIndex={0} role="region" aria-label={table.name}>
      <table className={`w-full text-sm ${hasBars(table) ? 'min-w-[34rem] table-fixed' : ''}`} aria-label={table.name}>
        <thead>
          <tr className="border-b border-rule2 text-left text-xs text-ink2">
            {table.columns.map((name, column) => (
              <th key={name} scope="col" className={`py-1 pr-3 font-normal print:py-0 ${isNumber(column) ? 'text-right' : hasBars(table) ? 'w-[28%]' : ''}`}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.slice(0, table.most).map((row, i) => (
            <tr key={i} className="break-inside-avoid border-b border-rule align-baseline">
              {row.map((cell, column) => (
                <Cell key={column} cell={cell} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {more !== null && <p className="mt-1 text-xs text-ink2">{more}</p>}
    </div>
  );
}

function Cell({ cell }: { readonly cell: ReportCell }) {
  const { project } = useFrame();
  switch (cell.kind) {
    case 'text':
      return (
        <td className="py-1 pr-3 print:py-px">
          {cell.id === null ? (
            cell.text
          ) : (
            <Link className="hover:underline" to={address.artefact(project, cell.id)}>
              {cell.text}
            </Link>
          )}
        </td>
      );
    case 'number':
      return <td className="whitespace-nowrap py-1 pr-3 text-right font-mono text-xs print:py-px">{cell.text}</td>;
    case 'bar':
      return (
        <td className="py-1 pr-3 print:py-px">
          <Bar counts={cell.counts} />
        </td>
      );
  }
}

const LOOK: Readonly<Record<(typeof BAR_ORDER)[number], string>> = {
  shown: 'bg-pine',
  linked: 'bg-[repeating-linear-gradient(45deg,var(--color-ochre)_0_3px,var(--color-ochre-wash)_3px_6px)]',
  waiting: 'bg-[repeating-linear-gradient(-45deg,var(--color-plum)_0_2px,var(--color-plum-wash)_2px_5px)]',
  suspect: 'bg-brick',
  gap: '',
};

function Bar({ counts }: { readonly counts: StandingCounts }) {
  const all = itemsToShow(counts);
  const words = BAR_ORDER.filter((s) => counts[s] > 0).map((s) => `${counts[s]} ${STANDING_WORD[s]}`);
  return (
    <span className="flex h-[9px] overflow-hidden rounded-[2px] border border-rule2 bg-page" role="img" aria-label={words.join(', ')} title={words.join(', ')}>
      {BAR_ORDER.map((s) => (
        <span key={s} className={LOOK[s]} style={{ width: `${(counts[s] * 100) / all}%` }} />
      ))}
    </span>
  );
}

const DAY_MS = 86_400_000;

function OverTime({ curve }: { readonly curve: ReportCurve }) {
  const { points, mark, words } = curve;
  const first = Date.parse(points[0]?.at ?? '');
  const day = useCallback((at: string) => (Date.parse(at) - first) / DAY_MS, [first]);
  const curves = useMemo<Curve[]>(() => [{ name: 'shown', colour: 'pine', drawn: 'line', points: points.map((p) => ({ x: day(p.at), y: p.share })) }], [day, points]);
  const marks = useMemo(() => (mark === null || Date.parse(mark.at) < first ? [] : [{ x: day(mark.at), name: mark.name }]), [day, first, mark]);
  const xWords = useCallback((x: number) => dayWords(new Date(first + x * DAY_MS).toISOString()), [first]);
  return <Curves className="mt-2 h-40 print:h-36 break-inside-avoid" words={words} curves={curves} xName="" yName="" xMost={Math.max(1, day(points.at(-1)?.at ?? ''))} yMost={100} marks={marks} xWords={xWords} yWords={percentWords} />;
}

const percentWords = (y: number): string => `${Math.floor(y)} %`;
