import { LIMITS } from '@caderno/contract';
import { TextArea } from '../look/index.ts';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
}

/** What is to stand at the place instead, begun with what stands there. */
export function OfferField({ label, value, onChange }: Props) {
  return (
    <label className="mb-1 block">
      <span className="font-semibold text-ink">It should say</span>
      <TextArea aria-label={`${label}: it should say`} className="mt-0.5 !h-auto w-full !px-1.5 !py-1 text-xs leading-5 text-ink" rows={Math.min(8, 1 + Math.ceil(value.length / 40))} maxLength={LIMITS.text} value={value} onChange={onChange} />
    </label>
  );
}
