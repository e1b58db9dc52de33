import type { Pin } from '@caderno/core/artefacts';
import { Choose } from '../look/index.ts';

interface Props {
  readonly pinned: Pin;
  /** The version that it means now. */
  readonly version: number;
  readonly onChange: (pinned: Pin) => void;
}

/** Which version of something a use means: the latest, the one agreed last, or one that stays. */
export function ChooseVersion({ pinned, version, onChange }: Props) {
  const stays = typeof pinned === 'number' ? pinned : version;
  const options = [
    { value: 'latest', name: 'follow the latest', pin: null },
    { value: 'agreed', name: 'follow what is agreed', pin: 'agreed' },
    { value: 'stays', name: `stay with v${stays}`, pin: stays },
  ] as const;
  return <Choose label="Version" showLabel value={options.find((o) => o.pin === pinned)?.value ?? 'latest'} options={options} onChange={(value) => onChange(options.find((o) => o.value === value)?.pin ?? null)} />;
}
