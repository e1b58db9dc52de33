import { parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { lazy, Suspense } from 'react';
import { RefusedCall, failureSentence } from '../api/index.ts';
import { Empty } from '../look/index.ts';

const Broken = lazy(() => import('./Broken.tsx').then((m) => ({ default: m.Broken })));

/** What stands on a page while its artefact is read, or when it cannot be. */
export function Loading({ error }: { readonly error: unknown }) {
  if (error === null) return <p className="p-7 text-ink2">Reading …</p>;
  const broken = brokenOf(error);
  if (broken !== null) {
    return (
      <Suspense fallback={<p className="p-7 text-ink2">Reading …</p>}>
        <Broken id={broken} />
      </Suspense>
    );
  }
  return <Empty title="This cannot be shown">{failureSentence(error)}</Empty>;
}

function brokenOf(error: unknown): ArtefactId | null {
  if (!(error instanceof RefusedCall) || error.refusal.code !== 'artefact_broken') return null;
  return parseArtefactId(error.refusal.id) === null ? null : error.refusal.id;
}
