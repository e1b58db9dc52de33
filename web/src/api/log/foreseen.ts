import type { ArtefactId, ArtefactState } from '@caderno/core/artefacts';
import { withOwnValue } from '@caderno/core/fields';
import { tagsRenamed } from '@caderno/core/many';
import type { ChangeMany, Summary } from '@caderno/contract';

/** What a command will have made of heads, as far as that can be told before it is carried out. */
export interface Foreseen {
  readonly ids: readonly ArtefactId[];
  /** The head as it will be; the very same where the command does not concern it. */
  readonly head: (head: Summary) => Summary;
}

/** A head whose state was set by hand: to agree is to agree to its newest version. */
export function withState(head: Summary, state: ArtefactState): Summary {
  return head.state === state ? head : { ...head, state, agreed: state === 'agreed' ? head.version : head.agreed };
}

/** What a command on many artefacts will have made of their heads; null: of what it makes no head says anything now. */
export function foreseenOf({ of, done }: Pick<ChangeMany, 'of' | 'done'>): Foreseen | null {
  if (!('ids' in of)) return null;
  const head = headAfter(done);
  return head === null ? null : { ids: of.ids, head };
}

function headAfter(done: ChangeMany['done']): Foreseen['head'] | null {
  if (done.kind === 'state') return (head) => withState(head, done.state);
  if (done.kind !== 'edit') return null;
  const { edit } = done;
  switch (edit.kind) {
    case 'title':
      return (head) => ({ ...head, title: edit.title });
    case 'module':
      return (head) => (head.kind === 'condition' || head.kind === 'question' ? head : { ...head, module: edit.module });
    case 'priority':
      return (head) => (head.kind === 'requirement' || head.kind === 'case' ? { ...head, priority: edit.priority } : head);
    case 'owner':
      return (head) => (head.kind === 'case' || head.kind === 'feature' ? { ...head, owner: edit.owner } : head.kind === 'question' ? { ...head, asked: edit.owner } : head);
    case 'tag':
      // Tags of a feature stand in its text; which of its scenarios have them is the server’s to tell.
      return (head) => ('tags' in head && head.kind !== 'feature' ? { ...head, tags: tagged(head.tags, edit.tag, edit.belongs) } : head);
    case 'tags':
      return (head) => ('tags' in head && head.kind !== 'feature' ? { ...head, tags: [...tagsRenamed(head.tags, edit.from, edit.to)] } : head);
    case 'minutes':
      return (head) => (head.kind === 'case' ? { ...head, estimate: edit.minutes } : head);
    case 'caseKind':
      return (head) => (head.kind === 'case' ? { ...head, caseKind: edit.caseKind } : head);
    case 'execution':
      return (head) => (head.kind === 'case' ? { ...head, execution: edit.execution } : head);
    case 'covers':
      return (head) => (head.kind === 'case' ? { ...head, covers: [...head.covers.filter((id) => id !== edit.condition), ...(edit.belongs ? [edit.condition] : [])] } : head);
    case 'depth':
      return (head) => (head.kind === 'condition' ? { ...head, depths: [...head.depths.filter((d) => d !== edit.depth), ...(edit.belongs ? [edit.depth] : [])] } : head);
    case 'risk':
      return (head) => (head.kind === 'requirement' ? { ...head, risk: edit.risk } : head);
    case 'type':
      return (head) => (head.kind === 'requirement' ? { ...head, type: edit.type } : head);
    case 'derivedFrom':
      return (head) => (head.kind === 'condition' ? { ...head, requirements: [...head.requirements.filter((r) => r !== edit.requirement && r !== edit.insteadOf), edit.requirement] } : head);
    case 'writtenFor':
      return (head) => (head.kind === 'feature' ? { ...head, requirements: [...head.requirements.filter((r) => r !== edit.requirement), ...(edit.belongs ? [edit.requirement] : [])] } : head);
    // What does not have the field is left as it is; the page’s heads do not say which kinds have it.
    case 'own':
      return (head) => ({ ...head, own: withOwnValue(head.own, edit.field, edit.value) });
    // A rating’s risk is the server’s to tell; pins stand in no head.
    case 'rating':
    case 'wording':
    case 'pins':
    case 'uses':
      return null;
  }
}

function tagged(tags: string[], tag: string, belongs: boolean): string[] {
  const others = tags.filter((t) => t.toLowerCase() !== tag.toLowerCase());
  return belongs ? (others.length < tags.length ? tags : [...tags, tag]) : others;
}
