import { parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { RefusedCall, failureSentence } from '../api/index.ts';
import { Button, Empty, Waiting } from '../look/index.ts';

const Broken = lazy(() => import('./Broken.tsx').then((m) => ({ default: m.Broken })));

/** What stands on a page while its artefact is read, or when it cannot be. */
export function Loading({ error }: { readonly error: unknown }) {
  const client = useQueryClient();
  const again = (): void => void client.refetchQueries({ type: 'active', predicate: (query) => query.state.status !== 'success' });
  if (error === null) return <Waiting onRetry={again}>Reading …</Waiting>;
  const broken = brokenOf(error);
  if (broken !== null) {
    return (
      <Suspense fallback={<p className="p-7 text-ink2">Reading …</p>}>
        <Broken id={broken} />
      </Suspense>
    );
  }
  return (
    <Empty title="This cannot be shown" action={<Button onClick={again}>Try again</Button>}>
      {failureSentence(error)}
    </Empty>
  );
}

function brokenOf(error: unknown): ArtefactId | null {
  if (!(error instanceof RefusedCall) || error.refusal.code !== 'artefact_broken') return null;
  return parseArtefactId(error.refusal.id) === null ? null : error.refusal.id;
}
