import type { Attachment } from '@caderno/core/attachments';
import type { PlainStep, StepId } from '@caderno/core/cases';
import { LIMITS } from '@caderno/contract';
import { Trash2 } from 'lucide-react';
import { memo } from 'react';
import { toast } from 'sonner';
import { AttachedFiles, UploadLines, filesPasted, useUploads, withFiles } from '../attachments/index.ts';
import { AddFiles } from './AddFiles.tsx';
import { ParameterField } from './ParameterField.tsx';
import { DropPlace } from './UseDragging.tsx';
import { SelectBox } from './SelectBox.tsx';
import type { Act, Focus, StepPart } from './stepCommand.ts';
import type { ParameterContext } from './parameterEditing.ts';
import { IconButton } from '../look/index.ts';

export interface LineProps {
  readonly number: number;
  readonly context: ParameterContext;
  readonly canEdit: boolean;
  readonly focus: Focus | null;
  readonly act: Act;
  readonly selected: boolean;
  readonly onSelect: (id: StepId, on: boolean, through: boolean) => void;
}

/** A step that is written here. */
export const PlainLine = memo(function PlainLine({ step, number, context, canEdit, focus, act, selected, onSelect }: LineProps & { readonly step: PlainStep }) {
  const onChange = (part: Partial<Pick<PlainStep, StepPart | 'attachments'>>): boolean => act(step.id, { kind: 'change', part });
  const onRemove = (): boolean => act(step.id, { kind: 'remove' });
  const onGo = (part: StepPart): boolean => act(step.id, { kind: 'go', part });
  const onNeighbour = (direction: -1 | 1, part: StepPart): boolean => act(step.id, { kind: 'neighbour', direction, part });
  const onMove = (direction: -1 | 1, part: StepPart): boolean => act(step.id, { kind: 'move', direction, part });
  const turnOf = (part: StepPart): number => (focus?.part === part ? focus.turn : 0);
  const uploads = useUploads((kept) => {
    const attachments = withFiles(step.attachments, [kept], LIMITS.attachments);
    if (attachments === null) toast.error(`A step may have ${LIMITS.attachments} files. ${kept.name} was not added.`);
    else onChange({ attachments });
  });
  const hasExpected = step.expected !== '' || focus?.part === 'expected';
  const shared = {
    context,
    readOnly: !canEdit,
    oneLine: true,
    onEnter: () => act(step.id, { kind: 'append' }),
    onPasteLines: (data: DataTransfer) => act(step.id, { kind: 'paste', data }),
    rests: focus?.rests === true,
  };
  return (
    <li
      data-step={step.id}
      data-place={`steps/${step.id}`}
      onPasteCapture={(event) => {
        const files = filesPasted(event.clipboardData);
        if (!canEdit || files.length === 0) return;
        event.preventDefault();
        event.stopPropagation();
        uploads.add(files);
      }}
      onDrop={(event) => {
        if (!canEdit || event.dataTransfer.files.length === 0) return;
        event.preventDefault();
        uploads.add([...event.dataTransfer.files]);
      }}
      // Lines out of sight are not laid out; the one that is written in may show its list beyond itself.
      className={`group relative flex items-baseline border-b border-rule py-1 [contain-intrinsic-size:auto_37px] [&:not(:focus-within)]:[content-visibility:auto] ${selected ? 'bg-blue-wash' : ''}`}
    >
      <SelectBox id={step.id} number={number} canEdit={canEdit} selected={selected} onSelect={onSelect} />
      <div className="min-w-0 flex-1">
        <div data-place={`steps/${step.id}/action`}>
          <ParameterField
            {...shared}
            label={`Action of step ${number}`}
            value={step.action}
            placeholder="What is done"
            onChange={(action) => onChange({ action })}
            focusTurn={turnOf('action')}
            onTab={() => onGo('expected')}
            onShiftTab={() => onNeighbour(-1, 'expected')}
            onMove={(direction) => onMove(direction, 'action')}
            onLeave={(direction) => (direction === 1 && hasExpected ? onGo('expected') : onNeighbour(direction, 'action'))}
            onBackspaceEmpty={() => step.expected === '' && onRemove()}
            onSlash={() => step.expected === '' && act(step.id, { kind: 'insert' })}
          />
        </div>
        {hasExpected && (
          <div data-place={`steps/${step.id}/expected`} className="flex items-baseline text-pine">
            <span className="w-5 shrink-0 font-bold" aria-hidden="true">
              ⇒
            </span>
            <ParameterField
              {...shared}
              label={`Expected result of step ${number}`}
              value={step.expected}
              placeholder="What is expected then"
              onChange={(expected) => onChange({ expected })}
              focusTurn={turnOf('expected')}
              onTab={() => onNeighbour(1, 'action')}
              onShiftTab={() => onGo('action')}
              onMove={(direction) => onMove(direction, 'expected')}
              onLeave={(direction) => (direction === -1 ? onGo('action') : onNeighbour(1, 'action'))}
              onBackspaceEmpty={() => onGo('action')}
              className="min-w-0 flex-1"
            />
          </div>
        )}
        <AttachedFiles label={`Files of step ${number}`} attachments={step.attachments} picture="h-20 max-w-48" {...(canEdit ? { onRemove: ({ id }: Attachment) => onChange({ attachments: step.attachments.filter((a) => a.id !== id) }) } : {})} />
        <UploadLines uploads={uploads} />
      </div>
      {canEdit && <DropPlace after={step.id} />}
      {canEdit && (
        <span className="absolute right-0 top-1 hidden gap-1 bg-page pl-2 group-focus-within:flex group-hover:flex">
          {!hasExpected && (
            <button type="button" tabIndex={-1} className="h-6 rounded px-1.5 text-xs text-pine hover:bg-page2" onClick={() => onGo('expected')}>
              ⇒ expected
            </button>
          )}
          <AddFiles number={number} onAdd={uploads.add} />
          <IconButton label={`Remove step ${number}`} small tabIndex={-1} title="Remove the step" onClick={onRemove} icon={<Trash2 size={13} aria-hidden="true" />} />
        </span>
      )}
    </li>
  );
});
