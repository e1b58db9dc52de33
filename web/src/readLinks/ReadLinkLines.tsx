import type { ReadLink } from '@caderno/contract';
import { Link } from 'react-router';
import { address } from '../frame/index.ts';
import { TextButton, ago, countOf, dateAndTime } from '../look/index.ts';

interface Props {
  readonly project: string;
  readonly links: readonly ReadLink[];
  /** All are of one artefact, which need not be said again. */
  readonly ofOne?: boolean;
  readonly onEnd: (id: string) => void;
}

/** Links to read that open something, each ended at once. */
export function ReadLinkLines({ project, links, ofOne = false, onEnd }: Props) {
  return (
    <ul className="divide-y divide-rule text-sm" aria-label="Links to read">
      {links.map((link) => (
        <li key={link.id} className="flex items-center gap-3 py-1.5">
          <span className="min-w-0 flex-1">
            <span className="block truncate">
              {!ofOne && (
                <>
                  <Link className="font-mono text-xs underline decoration-rule2 underline-offset-2" to={address.artefact(project, link.of)}>
                    {link.of}
                  </Link>{' '}
                  {link.title} ·{' '}
                </>
              )}
              <strong className="font-semibold">{link.forWhom === '' ? 'for nobody named' : link.forWhom}</strong>
            </span>
            <span className="block text-xs text-ink2">
              until {dateAndTime(link.endsAt)} · given by {link.by} · {link.openedAt === null ? 'never opened yet' : `opened ${countOf(link.opened, 'time')}, last ${ago(link.openedAt)}`}
            </span>
          </span>
          <TextButton aria-label={`End the link to ${link.of}${link.forWhom === '' ? '' : ` for ${link.forWhom}`}`} onClick={() => onEnd(link.id)}>
            end it
          </TextButton>
        </li>
      ))}
    </ul>
  );
}
