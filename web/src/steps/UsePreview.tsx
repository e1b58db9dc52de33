import type { CaseId, SharedId } from '@caderno/core/artefacts';
import { EMPTY_CASE } from '@caderno/core/cases';
import { keysUsed, openCase } from '@caderno/core/shared';
import { useMemo } from 'react';
import { useLibrary } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { OpenedLines } from './OpenedLines.tsx';

/** What shared steps or a case hold, opened, before they are put anywhere. */
export function UsePreview({ id }: { readonly id: SharedId | CaseId }) {
  const { project } = useFrame();
  const library = useLibrary(project, [id]).data;
  const used = library?.get(id);
  const content = used === undefined || used.kind === 'dataSet' ? undefined : used.content;
  const opened = useMemo(() => (content === undefined || library === undefined ? null : openCase({ ...EMPTY_CASE, steps: content.steps, parameters: content.parameters }, library)), [content, library]);
  if (content === undefined || opened === null) return null;
  const nested = keysUsed(content);
  return (
    <>
      <p className="font-semibold">{content.title}</p>
      {content.parameters.length > 0 && (
        <p className="text-xs text-ink2">
          takes{' '}
          {content.parameters.map((p) => (
            <span key={p.id} className="cad-parameter mr-1">{`<${p.name}>`}</span>
          ))}
        </p>
      )}
      <div className="mt-2">{opened.kind === 'opened' ? <OpenedLines lines={opened.steps} depth={0} withValues={false} /> : <p className="text-brick">It is too large to be opened.</p>}</div>
      {nested.length > 0 && <p className="mt-2 text-xs text-ink2">It uses {nested.join(', ')}.</p>}
    </>
  );
}
