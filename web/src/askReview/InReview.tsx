import type { ArtefactId } from '@caderno/core/artefacts';
import { Link } from 'react-router';
import { useReviews } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';

/** Leads from an artefact to the review that asks for it. */
export function InReview({ id }: { readonly id: ArtefactId }) {
  const { project, person } = useFrame();
  const review = useReviews(project).data?.find((r) => r.endedAt === null && r.ids.includes(id));
  if (review === undefined) return null;
  const waits = review.asked.some((a) => a.person === person.id && a.waiting > 0);
  return (
    <Link to={`${address.review(project, review.number)}?of=${id}`} className={waits ? 'font-semibold text-blue' : ''}>
      {waits ? 'Review' : 'In review'} {review.number}
      {waits && ' asks you'}
    </Link>
  );
}
