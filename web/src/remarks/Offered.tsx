import { offeredOn, type Offer, type RemarkPlace } from '@caderno/core/remarks';
import type { Json } from '@caderno/core/versions';
import { useState } from 'react';
import { useFrame } from '../frame/index.ts';
import { Button, ago, dateAndTime } from '../look/index.ts';
import { WordDiff } from '../versions/index.ts';

interface Props {
  readonly offer: Offer;
  readonly place: RemarkPlace;
  /** With what is being written. */
  readonly content: Json;
  readonly onTake: () => Promise<boolean>;
}

/** A change that a remark offers, against what stands there now; who may change the design takes it by one click. */
export function Offered({ offer, place, content, onTake }: Props) {
  const { canEdit } = useFrame();
  const [busy, setBusy] = useState(false);
  if (offer.taken !== null) {
    return (
      <p className="my-0.5 text-pine">
        Taken by {offer.taken.name} as v{offer.taken.version}, <span title={dateAndTime(offer.taken.at)}>{ago(offer.taken.at)}</span>
      </p>
    );
  }
  const there = offeredOn(content, place);
  const take = (): void => {
    setBusy(true);
    void onTake().finally(() => setBusy(false));
  };
  return (
    <div className="my-1 rounded-field border border-rule2 bg-page2 px-2 py-1.5">
      <p className="whitespace-pre-line break-words font-serif text-[13px] leading-5 text-ink">{there === null ? offer.text : <WordDiff from={there} to={offer.text} />}</p>
      {there === null && <p className="mt-0.5 text-ochre-ink">What it was for is gone.</p>}
      {there === offer.text && <p className="mt-0.5">It says so already.</p>}
      {canEdit && there !== null && there !== offer.text && (
        <p className="mt-1 print:hidden">
          <Button disabled={busy} onClick={take}>
            Take it
          </Button>
        </p>
      )}
    </div>
  );
}
