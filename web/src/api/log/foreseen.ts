import type { ArtefactId } from '@caderno/core/artefacts';
import type { ChangeMany, Summary } from '@caderno/contract';

/** What a command will have made of heads, as far as that can be told before it is carried out. */
export interface Foreseen {
  readonly ids: readonly ArtefactId[];
  /** The head as it will be; the very same where the command does not concern it. */
  readonly head: (head: Summary) => Summary;
}

/** What a command on many artefacts will have made of their heads; null: of what it makes no head says anything now. */
export function foreseenOf({ of, done }: Pick<ChangeMany, 'of' | 'done'>): Foreseen | null {
  if (!('ids' in of)) return null;
  const head = headAfter(done);
  return head === null ? null : { ids: of.ids, head };
}

function headAfter(done: ChangeMany['done']): Foreseen['head'] | null {
  if (done.kind === 'state') return (head) => (head.state === done.state ? head : { ...head, state: done.state });
  if (done.kind !== 'edit') return null;
  const { edit } = done;
  switch (edit.kind) {
    case 'module':
      return (head) => (head.kind === 'condition' || head.kind === 'question' ? head : { ...head, module: edit.module });
    case 'priority':
      return (head) => (head.kind === 'requirement' || head.kind === 'case' ? { ...head, priority: edit.priority } : head);
    case 'risk':
      return (head) => (head.kind === 'requirement' ? { ...head, risk: edit.risk } : head);
    case 'type':
      return (head) => (head.kind === 'requirement' ? { ...head, type: edit.type } : head);
    case 'derivedFrom':
      return (head) => (head.kind === 'condition' ? { ...head, requirements: [...head.requirements.filter((r) => r !== edit.requirement && r !== edit.insteadOf), edit.requirement] } : head);
    // A rating’s risk is the server’s to tell; depths and pins stand in no head.
    case 'rating':
    case 'depth':
    case 'pins':
      return null;
  }
}
