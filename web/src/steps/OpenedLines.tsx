import type { Use } from '@caderno/core/cases';
import type { OpenedPart, OpenedStep, OpenedUse } from '@caderno/core/shared';
import { ChevronRight } from 'lucide-react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { TextWithTerms } from '../text/index.ts';
import { boundValueText } from './boundValueText.ts';

interface Props {
  readonly lines: readonly OpenedStep[];
  /** How many uses around the lines are already shown by whoever shows these. */
  readonly depth: number;
  /** Whether values are those of a row; otherwise only names stand there. */
  readonly withValues: boolean;
}

/** The steps behind a use, to be read: those of what is used further down under a heading of their own. */
export function OpenedLines({ lines, depth, withValues }: Props) {
  return (
    <ol className="text-sm">
      {lines.map((line, i) => {
        const before = lines[i - 1]?.through ?? [];
        const fresh = line.through.slice(depth).filter((t, at) => before[depth + at]?.use !== t.use || before.slice(depth, depth + at).some((b, k) => b.use !== line.through[depth + k]?.use));
        return (
          <li key={i}>
            {fresh.map((t) => (
              <OriginLine key={t.use.id} opened={t} indent={line.through.indexOf(t) - depth} />
            ))}
            <div className="flex gap-2 py-0.5" style={{ paddingLeft: (line.through.length - depth) * 14 }}>
              {line.kind === 'gone' ? <Gone use={line.step} /> : <OpenedTexts line={line} withValues={withValues} />}
            </div>
          </li>
        );
      })}
      {lines.length === 0 && <li className="py-0.5 text-ink2">No step stands in it yet.</li>}
    </ol>
  );
}

/** A step with its expected result, values in place. */
function OpenedTexts({ line, withValues }: { readonly line: Extract<OpenedStep, { kind: 'step' }>; readonly withValues: boolean }) {
  return (
    <span className="min-w-0">
      <OpenedText parts={line.scope.open(line.step.action)} withValues={withValues} />
      {line.step.expected !== '' && (
        <span className="block text-pine">
          <b aria-hidden="true">⇒</b> <OpenedText parts={line.scope.open(line.step.expected)} withValues={withValues} />
        </span>
      )}
    </span>
  );
}

/** A text of an opened step; values stand beside the names. */
function OpenedText({ parts, withValues }: { readonly parts: readonly OpenedPart[]; readonly withValues: boolean }) {
  return parts.map((part, i) => {
    if (part.kind === 'text') return <TextWithTerms key={i} text={part.text} />;
    const { value } = part;
    if (value.kind === 'undeclared') return <span key={i} className="cad-parameter cad-undeclared" title={`<${part.name}> is not declared`}>{`<${part.name}>`}</span>;
    // What a caller or a default gives is known without a row; what a row would give is not.
    const known = withValues || (value.kind === 'value' && value.from !== 'row');
    return (
      <span key={i} className="whitespace-nowrap">
        <span className="cad-parameter">{`<${part.name}>`}</span>
        {known && <span className="cad-value whitespace-normal" title={value.kind === 'value' ? FROM_WORD[value.from] : undefined}>{boundValueText(value)}</span>}
      </span>
    );
  });
}

const FROM_WORD = { row: 'from the row', caller: 'from the caller', default: 'the default', constant: 'a constant of the project' } as const;

function OriginLine({ opened, indent }: { readonly opened: OpenedUse; readonly indent: number }) {
  const { project } = useFrame();
  const { used } = opened;
  return (
    <div className="flex items-center gap-1 pt-1 text-xs text-ink2" style={{ paddingLeft: indent * 14 }}>
      <ChevronRight size={12} aria-hidden="true" />
      <Link className="font-mono underline decoration-rule2" to={address.artefact(project, used.id)}>
        {used.id}
      </Link>
      {used.content.title}
    </div>
  );
}

function Gone({ use }: { readonly use: Use }) {
  return <span className="text-brick">{use.kind === 'shared' ? use.shared : use.case} is not there any more.</span>;
}
