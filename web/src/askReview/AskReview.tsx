import { kindOfId, parseArtefactId, type ArtefactId, type ArtefactState, type RequirementId, type SuiteId } from '@caderno/core/artefacts';
import { isReviewable } from '@caderno/core/reviews';
import type { UnreviewedReason } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useHeads } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Dialog, KIND_NAME, countOf, locale, Tick } from '../look/index.ts';
import { ReviewTerms } from './ReviewTerms.tsx';

interface Props {
  readonly ids: readonly ArtefactId[];
  readonly onClose: () => void;
}

/** Why an artefact stays out of a review, after its id. */
export const LEFT_WORD: Record<UnreviewedReason, string> = {
  absent: 'is no longer there', withdrawn: 'is withdrawn', inReview: 'is in a review already', agreedAlready: 'is agreed as it is', question: 'is a question', unchanged: 'is as it was when somebody objected',
};

/** Asks people to agree to artefacts as they are now; to a requirement perhaps with all that hangs on it. */
export function AskReview({ ids, onClose }: Props) {
  const { project } = useFrame();
  const navigate = useNavigate();
  const heads = useHeads(project);
  const byId = useMemo(() => new Map(heads?.map((h) => [h.id, h])), [heads]);
  const [alone] = ids;
  const root = ids.length === 1 && alone !== undefined ? rootOf(alone) : null;
  const hanging = useQuery({ queryKey: [project, 'list', 'hanging', root], queryFn: () => call('readHanging', { params: { project, id: root ?? 'R-1' } }), enabled: root !== null }).data;
  const [withAll, setWithAll] = useState(false);
  // Sent again after an answer that never came, it is the same command.
  const [commandId] = useState(() => crypto.randomUUID());
  const wanted = withAll && hanging !== undefined ? hanging : ids;
  const asked = wanted.filter((id) => canBeAsked(id, byId.get(id)?.state));
  const title = ids.length === 1 && alone !== undefined ? `${alone} ${byId.get(alone)?.title ?? ''}`.trim().slice(0, 300) : '';
  const ask = async (terms: Parameters<Parameters<typeof ReviewTerms>[0]['onTake']>[0]): Promise<boolean> => {
    try {
      const { review, left } = await call('askReview', { params: { project }, body: { ...terms, ids: asked } }, { commandId });
      const out = left.map((l) => `${l.id} ${LEFT_WORD[l.reason]}`).join(', ');
      toast.success(`Review ${review.number} asks for ${countOf(review.items.length, 'artefact')}.${out === '' ? '' : ` Not asked for: ${out}.`}`, { action: { label: 'Open the review', onClick: () => void navigate(address.review(project, review.number)) } });
      return true;
    } catch (error) {
      tellFailure(error);
      return false;
    }
  };
  return (
    <Dialog title="Ask for a review" onClose={onClose}>
      <ReviewTerms key={String(heads !== undefined)} begun={{ title, note: '', due: null, people: [] }} word="Ask" onTake={ask} onClose={onClose} canTake={asked.length > 0}>
        <p className="text-ink2">{asked.length === 0 ? 'Nothing of this can be asked for now: it is agreed as it is, in a review already, or withdrawn.' : `They are asked to agree to ${kindsWords(asked)} as saved now.`}</p>
        {asked.length > 0 && asked.length < wanted.length && <p className="text-xs text-ink2">{countOf(wanted.length - asked.length, 'other')} of them: agreed as they are, in a review already, or withdrawn.</p>}
        {root !== null && hanging !== undefined && hanging.length > 1 && (
          <Tick checked={withAll} onChange={setWithAll}>
            {kindOfId(root) === 'suite' ? 'with its members and all that they use' : 'with all that hangs on it: what is below it, its conditions, what covers them and uses they make'} ({(hanging.length - 1).toLocaleString(locale())})
          </Tick>
        )}
      </ReviewTerms>
    </Dialog>
  );
}

/** What has more hanging on it that can be asked for at once. */
function rootOf(id: ArtefactId): RequirementId | SuiteId | null {
  const kind = kindOfId(id);
  return kind === 'requirement' || kind === 'suite' ? (id as RequirementId | SuiteId) : null;
}

/** Whether something can be asked for now; what is not known yet may be. */
function canBeAsked(id: ArtefactId, state: ArtefactState | undefined): boolean {
  return isReviewable(kindOfId(id)) && state !== 'withdrawn' && state !== 'agreed' && state !== 'inReview';
}

function kindsWords(ids: readonly ArtefactId[]): string {
  const [only] = ids;
  if (ids.length === 1 && only !== undefined) return only;
  const counts = new Map<string, number>();
  for (const id of ids) {
    const kind = parseArtefactId(id)?.kind;
    if (kind !== undefined) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  }
  return [...counts].map(([kind, count]) => countOf(count, ...KIND_NAME[kind as keyof typeof KIND_NAME])).join(', ');
}
