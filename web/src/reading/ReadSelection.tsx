import { isCaseId, type CoveringId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import { instanceName, instancesOf, openCase, type Constants, type Used } from '@caderno/core/shared';
import { Printer } from 'lucide-react';
import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { Button, Empty, countOf, locale } from '../look/index.ts';
import { useConstants, useOpened } from '../steps/index.ts';
import { Before, readableTexts, type ReadableText } from './Before.tsx';
import { InConfiguration } from './InConfiguration.tsx';
import { ReadLine, readableLines, type ReadableLine } from './ReadLine.tsx';
import { lasting, namedCases } from './selection.ts';
import { useReadable } from './useReadable.ts';

const MOST_CASES = 50;
/** Instances of one case on a page; a case may have millions. */
const MOST_INSTANCES = 20;

/** A selection of cases and scenarios, one below the other, to be read and printed as a whole. */
export function ReadSelection() {
  const { project } = useFrame();
  const [search] = useSearchParams();
  const cases = namedCases(search);
  const [first] = cases;
  if (first === undefined) return <Empty title="Nothing is selected">Select cases in their index and choose “read through”, or read a feature through from its page.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6 print:overflow-visible print:p-0">
      <div className="mx-auto max-w-3xl">
        <header className="flex flex-wrap items-center gap-4 border-b border-rule2 pb-3 print:hidden">
          <h1 className="font-serif text-2xl font-semibold">{countOf(cases.length, cases.every(isCaseId) ? 'case' : 'scenario')}</h1>
          <Link className="text-sm underline decoration-rule2" to={{ pathname: address.reading(project, first), search: lasting(search).toString() }}>
            one at a time
          </Link>
          <span className="ml-auto flex items-center gap-3">
            <InConfiguration />
            <Button onClick={() => window.print()}>
              <Printer size={14} aria-hidden="true" /> Print
            </Button>
          </span>
        </header>
        {cases.slice(0, MOST_CASES).map((id) => (
          <Whole key={id} id={id} configuration={search.get('in')} />
        ))}
        {cases.length > MOST_CASES && <p className="mt-4 text-ochre-ink">These are the first {MOST_CASES}; select fewer to have all of them on paper.</p>}
      </div>
    </div>
  );
}

function Whole({ id, configuration }: { readonly id: CoveringId; readonly configuration: string | null }) {
  const { content, error } = useReadable(id);
  if (error !== null || content === null) return <p className="mt-4 text-brick">{id} cannot be read: it is not in this project.</p>;
  if (content === undefined) return <p className="mt-4 text-ink2">Reading {id} …</p>;
  return <OpenedWhole id={id} content={content} configuration={configuration} />;
}

interface ReadableInstance {
  readonly name: string;
  readonly texts: readonly ReadableText[];
  readonly lines: readonly ReadableLine[];
}

function OpenedWhole({ id, content, configuration }: { readonly id: CoveringId; readonly content: CaseContent; readonly configuration: string | null }) {
  const { opened, library } = useOpened(content, configuration);
  const constants = useConstants(configuration);
  const instances = useMemo(() => readableInstances(content, library, constants), [constants, content, library]);
  if (opened.kind !== 'opened') return <p className="mt-4 text-brick">{id} is too large to be opened.</p>;
  return (
    <article className="mt-6 break-before-page first-of-type:break-before-auto">
      <h2 className="font-serif text-xl font-semibold">
        <span className="mr-2 font-mono text-xs font-normal text-ink2">{id}</span>
        {content.title}
      </h2>
      {instances.map((instance, n) => (
        <section key={n} className="mt-3" aria-label={`${id}, instance ${n + 1}`}>
          {(instances.length > 1 || instance.name !== '') && (
            <p className="border-y border-rule2 bg-page2 px-3 py-1 text-sm">
              instance {n + 1} of {opened.instances.toLocaleString(locale())} <strong className="ml-2 font-mono">{instance.name}</strong>
            </p>
          )}
          <Before content={content} texts={instance.texts} />
          <ol className="mt-2">
            {instance.lines.map((line, i) => (
              <ReadLine key={i} readable={line} before={instance.lines[i - 1]?.line ?? null} number={i + 1} isCurrent={false} mayOnlyExpect={!isCaseId(id)} />
            ))}
          </ol>
        </section>
      ))}
      {opened.instances > BigInt(MOST_INSTANCES) && <p className="mt-2 text-ochre-ink">These are the first {MOST_INSTANCES} of {opened.instances.toLocaleString(locale())} instances.</p>}
    </article>
  );
}

/** Values are those of the instance bound last: they are taken down before the next. */
function readableInstances(content: CaseContent, library: ReadonlyMap<string, Used>, constants: Constants): ReadableInstance[] {
  const opened = openCase(content, library, constants);
  const instances: ReadableInstance[] = [];
  if (opened.kind !== 'opened') return instances;
  for (const instance of instancesOf(opened)) {
    if (instances.length === MOST_INSTANCES) break;
    instances.push({ name: instanceName(instance), texts: readableTexts(content, opened), lines: readableLines(opened.steps) });
  }
  return instances;
}
