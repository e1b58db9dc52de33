import { requirementIdSchema, suiteIdSchema } from '@caderno/contract';
import { Printer } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { tellFailure, useModules, useSummaries } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { Spread, useFrame, useParameters } from '../frame/index.ts';
import { Button, Choose, Empty, countOf, locale } from '../look/index.ts';
import { SpecificationSheet } from './SpecificationSheet.tsx';
import { layOutPages, type LaidOutPages } from './pages.ts';
import { useSpecification, type SpecificationOf } from './useSpecification.ts';

/** All that is designed as one document: read as it stands, or laid out on pages with their numbers in the contents, to be printed. */
export function SpecificationPage() {
  const [search, setParameters] = useParameters();
  const of = partOf(search);
  // Pages are of one part: another one, chosen or gone back to, has none yet.
  return <OfPart key={JSON.stringify(of)} of={of} setParameters={setParameters} />;
}

function OfPart({ of, setParameters }: { readonly of: SpecificationOf; readonly setParameters: ReturnType<typeof useParameters>[1] }) {
  const { project } = useFrame();
  const { specified, error } = useSpecification(project, of);
  const sheet = useRef<HTMLElement>(null);
  const pages = useRef<HTMLDivElement>(null);
  const isEmpty = specified === undefined ? null : specified.read.artefacts.length === 0;
  const { work, start, stop, clear } = usePages(sheet, pages);
  const choose = (value: string): void => {
    setParameters({ module: null, requirement: null, suite: null, ...(value === '' ? {} : { [value.slice(0, value.indexOf(':'))]: value.slice(value.indexOf(':') + 1) }) });
  };
  return (
    <Spread
      chapter="specification"
      leftShare={24}
      leftLabel="What is specified"
      rightLabel="Specification"
      left={
        <div className="px-5 pb-10 pt-5 print:hidden">
          <h1 className="font-serif text-2xl font-semibold">Specification</h1>
          <p className="mt-1 text-sm text-ink2">All that is designed as one document: requirements, conditions with their drawings, cases, features, shared steps and data.</p>
          <div className="mt-5">
            <Part of={of} onChoose={choose} />
          </div>
          <div className="mt-5 flex flex-wrap gap-2">
            {work.kind === 'none' && (
              <Button disabled={isEmpty !== false} onClick={() => void start()}>
                Lay out the pages
              </Button>
            )}
            {work.kind === 'busy' && <Button onClick={stop}>Stop</Button>}
            {work.kind === 'done' && (
              <>
                <Button onClick={() => window.print()}>
                  <Printer size={13} aria-hidden="true" /> Print
                </Button>
                <Button onClick={clear}>Back to the text</Button>
              </>
            )}
          </div>
          <p role="status" className="mt-2 text-sm">
            {work.kind === 'busy' && `Page ${work.pages.toLocaleString(locale())} …`}
            {work.kind === 'done' && `${countOf(work.pages, 'page')}. The browser prints them on A4, or saves them as PDF.`}
          </p>
          {work.kind === 'none' && <p className="text-xs text-ink2">On pages the contents say where everything stands. A hundred pages take some ten seconds.</p>}
        </div>
      }
      right={
        specified === undefined ? (
          <Loading error={error} />
        ) : isEmpty === true ? (
          <Empty title="Nothing to print yet">{partWords(of) === '' ? 'Requirements, conditions and cases stand here once they are written.' : 'Nothing of this is designed yet, or it was withdrawn.'}</Empty>
        ) : (
          <>
            {work.kind !== 'done' && (
              <article ref={sheet} aria-label="Specification" className={`mx-auto max-w-[52rem] px-8 pb-12 pt-5 max-phone:px-4 print:max-w-none print:px-0 ${work.kind === 'busy' ? 'hidden' : ''}`}>
                <SpecificationSheet specified={specified} of={partWords(of)} />
              </article>
            )}
            <div ref={pages} className="spec-pages" />
          </>
        )
      }
    />
  );
}

function partOf(search: URLSearchParams): SpecificationOf {
  const [suite, requirement, module] = [suiteIdSchema.safeParse(search.get('suite')), requirementIdSchema.safeParse(search.get('requirement')), search.get('module')];
  if (suite.success) return { suite: suite.data };
  if (requirement.success) return { requirement: requirement.data };
  return module === null ? {} : { module };
}

function partWords({ module, requirement, suite }: SpecificationOf): string {
  return suite ?? requirement ?? module ?? '';
}

function Part({ of, onChoose }: { readonly of: SpecificationOf; readonly onChoose: (value: string) => void }) {
  const { project } = useFrame();
  const modules = useModules(project);
  const suites = (useSummaries(project, 'suite').data ?? []).filter((s) => s.state !== 'withdrawn');
  const value = of.suite !== undefined ? `suite:${of.suite}` : of.requirement !== undefined ? `requirement:${of.requirement}` : of.module !== undefined ? `module:${of.module}` : '';
  return (
    <Choose
      label="Of"
      showLabel
      value={value}
      options={[
        { value: '', name: 'everything' },
        ...(of.requirement === undefined ? [] : [{ value, name: `what hangs on ${of.requirement}` }]),
        ...modules.map((module) => ({ value: `module:${module}`, name: module })),
        ...suites.map((s) => ({ value: `suite:${s.id}`, name: `${s.id} ${s.title}` })),
      ]}
      onChange={onChoose}
    />
  );
}

type Work = { readonly kind: 'none' } | { readonly kind: 'busy'; readonly pages: number } | { readonly kind: 'done'; readonly pages: number };
const NONE: Work = { kind: 'none' };

/** The pages of a sheet, laid out when that is asked for. */
function usePages(sheet: React.RefObject<HTMLElement | null>, pages: React.RefObject<HTMLDivElement | null>) {
  const [work, setWork] = useState<Work>(NONE);
  const laidOut = useRef<LaidOutPages | null>(null);
  const stopping = useRef<AbortController | null>(null);
  const clear = (): void => {
    stopping.current?.abort();
    laidOut.current?.release();
    laidOut.current = null;
    setWork(NONE);
  };
  // What was inserted for the pages would stay on all others.
  useEffect(
    () => () => {
      stopping.current?.abort();
      laidOut.current?.release();
    },
    [],
  );
  const start = async (): Promise<void> => {
    if (sheet.current === null || pages.current === null) return;
    const content = document.createDocumentFragment();
    content.append(...[...sheet.current.childNodes].map((node) => node.cloneNode(true)));
    const controller = new AbortController();
    stopping.current = controller;
    setWork({ kind: 'busy', pages: 0 });
    try {
      const done = await layOutPages(content, pages.current, (count) => setWork((now) => (now.kind === 'busy' ? { kind: 'busy', pages: count } : now)), controller.signal);
      laidOut.current = done;
      if (done !== null) setWork({ kind: 'done', pages: done.total });
    } catch (error) {
      setWork(NONE);
      tellFailure(error);
    }
  };
  return { work, start, stop: clear, clear };
}
