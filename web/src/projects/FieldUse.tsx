import { readOwn, type OwnField } from '@caderno/core/fields';
import { useMemo } from 'react';
import { useHeads } from '../api/index.ts';
import { countOf, locale } from '../look/index.ts';
import { useFrame } from '../frame/index.ts';

const MOST_NAMED = 5;

/** In how many artefacts a field is filled in and, when its type or its choices are changed, what does not fit any more. */
export function FieldUse({ field, saved }: { readonly field: OwnField; readonly saved: OwnField | undefined }) {
  const heads = useHeads(useFrame().project);
  const filled = useMemo(() => heads?.flatMap((head) => (head.own[field.id] === undefined ? [] : [{ id: head.id, reading: readOwn(field, head.own[field.id] ?? '') }])) ?? [], [field, heads]);
  if (saved === undefined) return null;
  const unfit = filled.filter(({ reading }) => !reading.fits);
  if (filled.length === 0) return null;
  return (
    <p className="text-xs text-ink2">
      filled in {countOf(filled.length, 'artefact')}
      {unfit.length > 0 && (
        <span className="text-brick">
          {' · '}
          {countOf(unfit.length, 'value')} {unfit.length === 1 ? 'does' : 'do'} not fit and {unfit.length === 1 ? 'stays' : 'stay'} as written: {unfit.slice(0, MOST_NAMED).map(({ id, reading }) => `${id} “${reading.shown.join(', ').slice(0, 40)}”`).join(', ')}
          {unfit.length > MOST_NAMED && ` and ${(unfit.length - MOST_NAMED).toLocaleString(locale())} more`}
        </span>
      )}
    </p>
  );
}
