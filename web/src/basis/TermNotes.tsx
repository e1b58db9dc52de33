import { Link } from 'react-router';
import { MarginNote } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { termSpans, useGlossary } from '../text/index.ts';

/** The terms of the glossary that occur in a text, with their definitions: what the underlined words show on hover, for everyone. */
export function TermNotes({ text }: { readonly text: string }) {
  const { project } = useFrame();
  const spans = termSpans(useGlossary(), text);
  if (spans.length === 0) return null;
  return (
    <MarginNote title="Terms in it">
      <ul className="space-y-1 py-1">
        {spans.map(({ id, title }) => {
          const colon = title.indexOf(':');
          return (
            <li key={id}>
              <b className="font-semibold text-ink">{title.slice(0, colon)}</b>
              {title.slice(colon)}
            </li>
          );
        })}
      </ul>
      <Link className="underline" to={address.glossary(project)}>
        Glossary
      </Link>
    </MarginNote>
  );
}
