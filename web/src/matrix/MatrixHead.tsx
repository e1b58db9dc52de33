import { CELL_STANDINGS } from '@caderno/core/coverage';
import { ArrowLeftRight } from 'lucide-react';
import { QueryLine } from '../listing/index.ts';
import { Button, Choose, STANDING_WORD, StandingShape, TextButton, Tick } from '../look/index.ts';
import { BASES, TESTS, type Basis, type MatrixViewing, type Side, type Tests } from './matrixView.ts';
import { aloneWords, foundOf } from './matrixWords.ts';
import { sidesOf, type DrawnMatrix } from './useMatrix.ts';

interface Props {
  readonly viewing: MatrixViewing;
  readonly drawn: DrawnMatrix | undefined;
  readonly onExport: () => void;
}

const KIND = { requirements: 'requirement', conditions: 'condition', cases: 'case', scenarios: 'feature', suites: 'suite' } as const;

/** What stands against what, what of it, and what is left without anything. */
export function MatrixHead({ viewing, drawn, onExport }: Props) {
  const { view, setParameters, setSide } = viewing;
  const sides = sidesOf(view);
  return (
    <header className="px-6 pb-3 pt-5 print:pb-1">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="mr-3 font-serif text-2xl font-semibold">Matrix</h1>
        <span className="inline-flex items-center gap-2 print:hidden">
          <SideChoice side={sides[0]} viewing={viewing} /> <span className="text-ink2">×</span> <SideChoice side={sides[1]} viewing={viewing} />
          <Button className="h-chip! px-2!" title="What stands at the left goes across, and the other way round" onClick={() => setParameters({ turned: view.turned ? null : 'yes', row: null, column: null })}>
            <ArrowLeftRight size={13} aria-hidden="true" /> Turn
          </Button>
        </span>
        <Tick checked={view.onlyMet} onChange={(ticked) => setParameters({ met: ticked ? 'yes' : null })} className="ml-auto text-sm max-[760px]:ml-0 print:hidden">
          Hide what is empty in view
        </Tick>
        <Button className="print:hidden" onClick={onExport} disabled={drawn === undefined}>
          Export XLSX
        </Button>
      </div>
      <div className="mt-2 grid grid-cols-2 gap-3 print:hidden max-[760px]:grid-cols-1">
        {sides.map((side) => (
          <div key={`${side} ${view[side]}`} className="flex items-start gap-2">
            <span className="pt-1.5 text-xs text-ink2">{view[side] === 'scenarios' ? 'features' : view[side]}</span>
            <QueryLine kind={KIND[view[side]]} query={view.sides[side].query} onQuery={(query) => setSide(side, { query })} />
          </div>
        ))}
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm text-ink2">
        {drawn !== undefined && <Told viewing={viewing} drawn={drawn} />}
        <ul className="ml-auto flex flex-wrap gap-x-4 text-xs" aria-label="What the squares mean">
          {CELL_STANDINGS.map((standing) => (
            <li key={standing} className="inline-flex min-h-6 items-center gap-1.5">
              <StandingShape standing={standing} /> {STANDING_WORD[standing]}
            </li>
          ))}
        </ul>
      </div>
    </header>
  );
}

function SideChoice({ side, viewing: { view, setParameters } }: { readonly side: Side; readonly viewing: MatrixViewing }) {
  const forget = Object.fromEntries(['query', 'order', 'meets', 'alone', 'folded'].flatMap((name) => [[`${side}.${name}`, null]]));
  const others = { [`${side === 'basis' ? 'tests' : 'basis'}.order`]: null, [`${side === 'basis' ? 'tests' : 'basis'}.meets`]: null, row: null, column: null };
  const options = (names: readonly (Basis | Tests)[]) => names.map((name) => ({ value: name, name }));
  if (side === 'basis') return <Choose<Basis | Tests> label="Of" value={view.basis} options={options(BASES)} onChange={(of) => setParameters({ ...forget, ...others, of })} />;
  return <Choose<Basis | Tests> label="Against" value={view.tests} options={options(TESTS)} onChange={(by) => setParameters({ ...forget, ...others, by })} />;
}

/** How many are in view of how many, what is alone, and by what the view is narrowed. */
function Told({ viewing: { view, setSide }, drawn }: { readonly viewing: MatrixViewing; readonly drawn: DrawnMatrix }) {
  const sides = sidesOf(view);
  const counts = sides.map((side) => foundOf(drawn[side === sides[0] ? 'down' : 'across'].reduce((n, line) => n + (line.kind === 'item' ? 1 : line.folded ? line.items : 0), 0), drawn.axes[side].all.length, view[side]));
  return (
    <>
      <span className="text-ink">{counts.join(' × ')}</span>
      {sides.map((side) => {
        const alone = drawn.axes[side].found.filter((item) => !drawn.meeting[side].has(item.id)).length;
        const seen = view.sides[side];
        return (
          <span key={side} className="inline-flex gap-4 empty:hidden print:hidden">
            {(alone > 0 || seen.alone) && (
              <TextButton className="text-brick" onClick={() => setSide(side, { alone: !seen.alone })}>
                {seen.alone ? `all ${view[side]} again` : aloneWords(alone, side, view)}
              </TextButton>
            )}
            {seen.meets !== null && <TextButton onClick={() => setSide(side, { meets: null })}>{`only ${view[side]} that meet ${seen.meets}: all again`}</TextButton>}
          </span>
        );
      })}
    </>
  );
}
