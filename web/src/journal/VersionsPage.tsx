import { parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { reviewNumber } from '@caderno/core/reviews';
import type { ReviewedVersion } from '@caderno/contract';
import { artefactIdSchema } from '@caderno/contract';
import { Link, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { Changes } from '../changes/index.ts';
import { call, tellFailure, useHeads, useVersion, useVersions, useRefresh } from '../api/index.ts';
import { Spread, address, useFrame } from '../frame/index.ts';
import { Button, Empty, dateAndTime, Answer } from '../look/index.ts';
import { Difference } from '../versions/index.ts';

/** The versions of an artefact at the left; at the right what changed between two of them. */
export function VersionsPage() {
  const { project } = useFrame();
  const parsed = artefactIdSchema.safeParse(useParams().id);
  if (!parsed.success || parseArtefactId(parsed.data) === null) return <Empty title="No such artefact">The address names none of this project.</Empty>;
  return <Versions key={parsed.data} project={project} id={parsed.data} />;
}

function Versions({ project, id }: { readonly project: string; readonly id: ArtefactId }) {
  const versions = useVersions(project, id).data ?? [];
  const [search, setSearch] = useSearchParams();
  const newest = versions[0]?.version ?? 1;
  const agreed = useHeads(project)?.find((h) => h.id === id)?.agreed ?? null;
  const to = numberOr(search.get('to'), newest);
  const from = numberOr(search.get('from'), Math.max(1, to - 1));
  const select = (next: { from?: number; to?: number }): void => setSearch({ from: String(next.from ?? from), to: String(next.to ?? to) }, { replace: true });
  return (
    <Spread
      chapter="versions"
      leftShare={36}
      opened={search.has('to') ? `${from} ${to}` : null}
      leftLabel="Versions"
      rightLabel="Difference"
      left={
        <div className="p-6">
          <h1 className="font-serif text-2xl font-semibold">Versions of {id}</h1>
          <p className="mt-1 text-sm">
            <Link className="underline" to={address.artefact(project, id)}>
              Back to {id}
            </Link>
          </p>
          <ol className="mt-4 divide-y divide-rule border-y border-rule" aria-label="Versions">
            {versions.map((version) => (
              <VersionLine key={version.version} version={version} isAgreed={version.version === agreed} from={from} to={to} onSelect={select} />
            ))}
          </ol>
          <h2 className="mt-7 border-b border-ink pb-1 font-serif text-lg font-semibold">Journal of {id}</h2>
          <Changes project={project} artefact={id} />
        </div>
      }
      right={<Between project={project} id={id} from={from} to={to} newest={newest} />}
    />
  );
}

interface LineProps {
  readonly version: ReviewedVersion;
  readonly isAgreed: boolean;
  readonly from: number;
  readonly to: number;
  readonly onSelect: (next: { from?: number; to?: number }) => void;
}

function VersionLine({ version: { version, author, at, note, answers }, isAgreed, from, to, onSelect }: LineProps) {
  const { project } = useFrame();
  return (
    <li className={`flex items-start gap-3 px-2 py-2.5 ${version === to ? 'bg-blue-wash' : ''}`}>
      <span className="w-8 shrink-0 font-mono text-xs leading-5 text-ink2">v{version}</span>
      <span className="min-w-0 flex-1">
        <span className="block font-semibold">{note || (version === 1 ? 'First version' : 'Saved')}</span>
        <span className="block text-xs text-ink2">
          {author} · {dateAndTime(at)}
          {isAgreed && <span className="font-semibold text-pine"> · agreed</span>}
        </span>
        {answers.map(({ review, name, agrees, note: why, at: when }) => (
          <span key={`${review} ${name}`} className="block text-xs text-ink2">
            <span className={agrees ? 'text-pine' : 'text-brick'}>{name} {agrees ? 'agreed' : 'objected'}</span> in{' '}
            <Link className="underline" to={address.review(project, reviewNumber(review))}>
              review {review}
            </Link>
            , {dateAndTime(when)}
            {why !== '' && <>: “{why}”</>}
          </span>
        ))}
      </span>
      <span className="flex shrink-0 gap-3 text-xs">
        <Answer name="from" checked={version === from} onPick={() => onSelect({ from: version })}>
          from
        </Answer>
        <Answer name="to" checked={version === to} onPick={() => onSelect({ to: version })}>
          to
        </Answer>
      </span>
    </li>
  );
}

function Between({ project, id, from, to, newest }: { readonly project: string; readonly id: ArtefactId; readonly from: number; readonly to: number; readonly newest: number }) {
  const refresh = useRefresh(project);
  const { canEdit } = useFrame();
  const before = useVersion(project, id, from).data;
  const after = useVersion(project, id, to).data;
  if (before === undefined || after === undefined) return <p className="p-6 text-ink2">Reading the versions …</p>;
  const restore = async (): Promise<void> => {
    try {
      const { kind, content } = after;
      // One union member at a time, so that kind and content stay together.
      const body = { kind, content, note: `Restored from v${to}` } as Parameters<typeof call<'saveArtefact'>>[1] extends { body?: infer B } ? B : never;
      await call('saveArtefact', { params: { project, id }, ...(body === undefined ? {} : { body }) }, { ifMatch: newest, commandId: crypto.randomUUID() });
      await refresh();
      toast.success(`${id} is v${newest + 1} now, with what v${to} held.`);
    } catch (error) {
      tellFailure(error);
    }
  };
  return (
    <div className="p-6">
      <header className="flex items-center gap-3">
        <h2 className="font-serif text-xl font-semibold">
          From v{from} to v{to}
        </h2>
        {canEdit && to !== newest && (
          <Button className="ml-auto" onClick={() => void restore()}>
            Restore v{to}
          </Button>
        )}
      </header>
      <Difference from={before.content} to={after.content} />
    </div>
  );
}

function numberOr(text: string | null, fallback: number): number {
  const number = Number(text);
  return text !== null && Number.isInteger(number) && number > 0 ? number : fallback;
}
