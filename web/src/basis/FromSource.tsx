import { idInSource, type RequirementContent } from '@caderno/core/basis';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Section } from '../look/index.ts';

/** Where an imported requirement comes from, what the source says of it beyond our fields, and how it relates to others. */
export function FromSource({ content }: { readonly content: RequirementContent }) {
  const { project } = useFrame();
  const titles = new Map((useSummaries(project, 'requirement').data ?? []).map((r) => [r.id, r.title]));
  const { origin, attributes, relations } = content;
  return (
    <>
      {relations.length > 0 && (
        <Section title="Relations">
          <ul className="text-sm">
            {relations.map((relation) => (
              <li key={relation.id} className="flex gap-3 border-b border-rule py-1.5">
                <span className="w-28 shrink-0 text-ink2">{relation.kind}</span>
                <Link className="hover:underline" to={address.basis(project, relation.to)}>
                  <span className="font-mono text-xs text-ink2">{relation.to}</span> {titles.get(relation.to)}
                </Link>
              </li>
            ))}
          </ul>
        </Section>
      )}
      {origin !== null && attributes.length === 0 && !isAddress(origin.link) && (
        <p className="mt-4 text-xs text-ink2">
          Imported from {origin.source}, where it is {idInSource(origin.id) === '' ? 'a line above others' : <span className="font-mono">{origin.id}</span>}.
        </p>
      )}
      {origin !== null && (attributes.length > 0 || isAddress(origin.link)) && (
        <Section title="From its source" aside={[origin.source, idInSource(origin.id)].filter(Boolean).join(' · ')} actions={isAddress(origin.link) && <a className="text-blue underline" href={origin.link} target="_blank" rel="noreferrer">Open it there</a>}>
          <dl className="text-sm">
            {attributes.map(({ id, value }) => (
              <div key={id} className="flex gap-3 border-b border-rule py-1.5">
                <dt className="w-28 shrink-0 truncate text-ink2" title={id}>
                  {id}
                </dt>
                <dd className="min-w-0 whitespace-pre-wrap break-words">{value}</dd>
              </div>
            ))}
          </dl>
        </Section>
      )}
    </>
  );
}

/** Only addresses of the web become links: a file may hold anything. */
function isAddress(text: string): boolean {
  return /^https?:\/\//i.test(text);
}
