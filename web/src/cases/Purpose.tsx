import type { CaseContent } from '@caderno/core/cases';
import { ParameterField, type ParameterContext } from '../steps/index.ts';
import type { Editing } from '../versions/index.ts';

interface Props {
  readonly content: CaseContent;
  readonly context: ParameterContext;
  readonly canEdit: boolean;
  readonly update: Editing<CaseContent>['update'];
}

const PROCEDURE = [
  { field: 'objective', word: 'Objective', hint: 'What it is to find out' },
  { field: 'preconditions', word: 'Preconditions', hint: 'What must hold before the first step' },
] as const;

const CHARTER = [
  { field: 'objective', word: 'Mission', hint: 'What is to be explored, with what, to find out what' },
  { field: 'areas', word: 'Areas', hint: 'Where to look, one a line' },
  { field: 'ideas', word: 'Ideas', hint: 'What to try, one a line' },
  { field: 'preconditions', word: 'Preconditions', hint: 'What must hold before one begins' },
] as const;

/** What a case is for: of a procedure before its steps, of a charter the whole of it. */
export function Purpose({ content, context, canEdit, update }: Props) {
  return (
    <dl className="grid grid-cols-[6.5rem_1fr] gap-y-1">
      {(content.kind === 'charter' ? CHARTER : PROCEDURE).map(({ field, word, hint }) => (
        <div key={field} className="contents">
          <dt className="pt-px text-xs leading-5 text-ink2">{word}</dt>
          <dd data-place={field} className="min-w-0">
            <ParameterField label={word} value={content[field]} onChange={(text) => update((c) => ({ ...c, [field]: text }))} context={context} readOnly={!canEdit} placeholder={hint} />
          </dd>
        </div>
      ))}
    </dl>
  );
}
