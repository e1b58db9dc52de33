import { handOffNumberSchema, type HandOffListed } from '@caderno/contract';
import { Link, useParams } from 'react-router';
import { Loading } from '../artefacts/index.ts';
import { Spread, address, useFrame } from '../frame/index.ts';
import { Empty, ago, countOf, dateAndTime, dayName } from '../look/index.ts';
import { HandOffPage } from './HandOffPage.tsx';
import { useHandOffs } from './handOffQueries.ts';

/** What was given to those who execute, the latest first; at the right one of them, with its files. */
export function HandOffsChapter() {
  const { project, canEdit } = useFrame();
  const { data, error } = useHandOffs();
  const parsed = handOffNumberSchema.safeParse(useParams().handOff);
  if (data === undefined) return <Loading error={error} />;
  const opened = parsed.success ? data.find((h) => h.number === parsed.data) : data[0];
  const button = canEdit && (
    <Link to={address.newHandOff(project)} className={`inline-flex h-8 items-center whitespace-nowrap rounded-panel border px-3 text-sm font-semibold ${data.length === 0 ? 'border-blue bg-blue text-on-accent' : 'border-rule2 bg-page hover:bg-page2'}`}>
      Hand something off
    </Link>
  );
  return (
    <Spread
      chapter="hand-offs"
      leftShare={32}
      leftLabel="Hand-offs"
      rightLabel="Hand-off"
      left={
        <div className="flex h-full flex-col">
          <header className="flex items-center gap-3 px-5 pb-2.5 pt-5">
            <h1 className="font-serif text-xl font-semibold">Hand-offs</h1>
            <span className="text-xs text-ink2">{data.length}</span>
            <span className="ml-auto print:hidden">{data.length > 0 && button}</span>
          </header>
          <ul aria-label="Hand-offs" className="min-h-0 flex-1 overflow-y-auto border-t border-rule2">
            {data.map((handOff) => (
              <Line key={handOff.number} handOff={handOff} isCurrent={handOff === opened} />
            ))}
          </ul>
        </div>
      }
      right={
        opened !== undefined ? (
          <HandOffPage key={opened.number} number={opened.number} />
        ) : data.length === 0 ? (
          <Empty title="Nothing was handed off yet" action={button}>
            A hand-off gives a suite or a baseline to those who execute: exact versions, values in place, each with their part, as a workbook or a page to tick. Later edits touch nothing of it.
          </Empty>
        ) : (
          <Empty title="No such hand-off">The address names none of this project.</Empty>
        )
      }
    />
  );
}

function Line({ handOff: { number, name, of, by, at, instances, due }, isCurrent }: { readonly handOff: HandOffListed; readonly isCurrent: boolean }) {
  const { project } = useFrame();
  return (
    <li className={`border-b border-rule ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
      <Link to={address.handOffs(project, number)} aria-current={isCurrent ? 'page' : undefined} className="block px-5 py-2.5">
        <span className="flex items-baseline gap-3">
          <span className="w-8 shrink-0 font-mono text-xs text-ink2">H-{number}</span>
          <span className="min-w-0 flex-1 break-words font-semibold">{name}</span>
        </span>
        <span className="mt-0.5 flex flex-wrap gap-x-3 pl-11 text-xs text-ink2">
          <span title={dateAndTime(at)}>
            {by}, {ago(at)}
          </span>
          <span>of {of}</span>
          <span>{countOf(instances, 'instance')}</span>
          {due !== null && <span>until {dayName(due)}</span>}
        </span>
      </Link>
    </li>
  );
}
