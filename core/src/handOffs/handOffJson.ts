import type { ExecutedInstance } from './executed.ts';
import type { HandOffHead } from './handOffFile.ts';

/** What is written beside the instances, so that whoever reads them knows what they are. */
export const HAND_OFF_FORMAT = 'caderno-hand-off';

/** A hand-off as JSON, piece by piece: the head, then an instance a line. */
export function* handOffJson({ number, ...head }: HandOffHead, instances: Iterable<ExecutedInstance>): Generator<string> {
  const before = JSON.stringify({ $schema: './hand-off.schema.json', format: HAND_OFF_FORMAT, version: 1, handOff: `H-${number}`, ...head });
  yield `${before.slice(0, -1)},"instances":[`;
  let isFirst = true;
  for (const instance of instances) {
    yield `${isFirst ? '' : ','}\n${JSON.stringify(instance)}`;
    isFirst = false;
  }
  yield '\n]}\n';
}
