import { textOf } from '@caderno/core/scenarios';
import type { Specified } from '@caderno/core/specification';
import { PartHead } from './PartHead.tsx';
import { NamedAll } from './Told.tsx';

/** A feature as its file reads. */
export function SpecificationFeature({ feature }: { readonly feature: Specified<'feature'> }) {
  const { content } = feature;
  const covered = [...new Set(content.parts.flatMap((part) => part.covers.map((c) => c.id)))];
  return (
    <section className="mt-6">
      <PartHead of={feature} facts={[content.path]} />
      {covered.length > 0 && (
        <p className="mt-1 text-xs">
          Covers <NamedAll ids={covered} />
        </p>
      )}
      {content.parts.map((part) => (
        <pre key={part.id} className="whitespace-pre-wrap break-words font-mono text-xs leading-5">
          {textOf({ parts: [part] })}
        </pre>
      ))}
    </section>
  );
}
