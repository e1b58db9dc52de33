import type { OpenedPart, OpenedStep } from '@caderno/core/shared';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { AttachedFiles } from '../attachments/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton } from '../look/index.ts';

/** A step with the values of an instance in its texts; they stay when another instance is bound. */
export interface ReadableLine {
  readonly line: OpenedStep;
  readonly action: readonly OpenedPart[];
  readonly expected: readonly OpenedPart[];
}

/** The steps of the instance that is bound. */
export function readableLines(steps: readonly OpenedStep[]): ReadableLine[] {
  return steps.map((line) => (line.kind === 'gone' ? { line, action: [], expected: [] } : { line, action: line.scope.open(line.step.action), expected: line.scope.open(line.step.expected) }));
}

interface Props {
  readonly readable: ReadableLine;
  /** The line above it, whose origin is said already. */
  readonly before: OpenedStep | null;
  readonly number: number;
  readonly isCurrent: boolean;
  /** Where it is written, for what is said of it. */
  readonly place?: string | undefined;
  /** Of a scenario: what is expected stands alone. */
  readonly mayOnlyExpect?: boolean;
  /** Absent for readers. */
  readonly onAsk?: () => void;
  readonly onPoint?: () => void;
}

/** A step to be done, with the values of the instance in place; where it comes from is said when that changes. */
export function ReadLine({ readable: { line, action, expected }, before, number, isCurrent, place, mayOnlyExpect = false, onAsk, onPoint }: Props) {
  const own = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (isCurrent) own.current?.scrollIntoView({ block: 'nearest' });
  }, [isCurrent]);
  const origin = line.through.map((t) => t.use.id).join(' ');
  const changed = origin !== (before?.through.map((t) => t.use.id).join(' ') ?? '') && line.through.length > 0;
  return (
    <li ref={own} data-place={place} aria-current={isCurrent ? 'step' : undefined} className={`break-inside-avoid ${line.through.length > 0 ? 'ml-5' : ''}`}>
      {changed && <Origin line={line} />}
      <div onClick={onPoint} className={`group relative flex gap-3 border-b border-rule py-2 pl-2 ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)] print:bg-transparent print:shadow-none' : ''}`}>
        <span className="w-7 shrink-0 pt-0.5 font-mono text-xs text-ink2">{number}</span>
        <div className="min-w-0 flex-1 text-read leading-6">
          {line.kind === 'gone' ? (
            <span className="text-brick">What stood here is not there any more: {line.step.kind === 'shared' ? line.step.shared : line.step.case}.</span>
          ) : (
            <>
              {(line.step.action !== '' || !mayOnlyExpect || line.step.expected === '') && <p className="whitespace-pre-line">{line.step.action === '' ? <span className="text-ink2">nothing is said to be done</span> : <ReadText parts={action} />}</p>}
              {line.step.expected !== '' && (
                <p className="whitespace-pre-line text-pine">
                  <b aria-hidden="true">⇒</b> <ReadText parts={expected} />
                </p>
              )}
              <AttachedFiles label={`Files of step ${number}`} attachments={line.step.attachments} picture="max-h-[420px] max-w-full" />
            </>
          )}
        </div>
        {onAsk !== undefined && (
          <span className="absolute right-2 top-2 hidden text-xs group-hover:block print:hidden">
            <TextButton onClick={onAsk}>ask about it</TextButton>
          </span>
        )}
      </div>
    </li>
  );
}

function Origin({ line }: { readonly line: OpenedStep }) {
  const { project } = useFrame();
  return (
    <p className="mt-2 border-b border-rule pb-0.5 text-xs text-ink2">
      {line.through.map((t, i) => (
        <span key={t.use.id}>
          {i > 0 && ' › '}
          <Link className="font-mono underline decoration-rule2 print:no-underline" to={address.artefact(project, t.used.id)}>
            {t.used.id}
          </Link>{' '}
          {t.used.content.title}
          {t.use.pinned !== null && ` (v${t.used.version}${t.use.pinned === 'agreed' ? ', agreed last' : ''})`}
        </span>
      ))}
    </p>
  );
}

/** Values stand in place of the names; a click copies one. */
export function ReadText({ parts }: { readonly parts: readonly OpenedPart[] }) {
  const copy = (text: string): void => {
    void navigator.clipboard.writeText(text).then(
      () => toast.success(`Copied: ${text}`),
      () => toast.error('The browser does not let the value be copied. Select it and copy it by hand.'),
    );
  };
  return parts.map((part, i) => {
    if (part.kind === 'text') return <span key={i}>{part.text}</span>;
    const { value, name } = part;
    if (value.kind === 'value') {
      return (
        <button key={i} type="button" data-on-paper title={`<${name}>: copy the value`} className="cad-value cursor-copy break-words text-left" onClick={() => copy(value.text)}>
          {value.text === '' ? '“”' : value.text}
        </button>
      );
    }
    if (value.kind === 'missing') return <em key={i} title={`<${name}>`} className="cad-value">no {name}, on purpose</em>;
    return (
      <span key={i} className="cad-parameter cad-undeclared" title={value.kind === 'undeclared' ? 'not declared' : 'without a value'}>
        {`<${name}>`}
      </span>
    );
  });
}
