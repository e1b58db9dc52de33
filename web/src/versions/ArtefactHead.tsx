import { isNewerThanAgreed, type ArtefactId, type ArtefactState } from '@caderno/core/artefacts';
import { ChevronDown } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import { InReview } from '../askReview/index.ts';
import { Follow } from '../following/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { GiveLinkButton } from '../readLinks/index.ts';
import { SendByMailButton } from '../sendByMail/index.ts';
import type { Editing } from './editing.ts';
import { SaveBar } from './SaveBar.tsx';
import { TitleField } from './TitleField.tsx';

interface Props<C extends { readonly title: string }> {
  readonly summary: { readonly id: ArtefactId; readonly author: string; readonly at: string; readonly version: number; readonly agreed: number | null; readonly meaningSince: number };
  /** Null: another word says how it stands. */
  readonly state: ArtefactState | null;
  readonly editing: Editing<C>;
  /** Where the title stands in the content too. */
  readonly onTitle?: (title: string) => void;
  /** Enter in the title leads on to what is written next. */
  readonly onEnter?: () => void;
  /** What leads on from it, beside the title. */
  readonly links?: ReactNode;
  /** What is looked at every day, on the line of its state. */
  readonly children?: ReactNode;
  /** What is rarely changed, and the most of it in a few words. */
  readonly rare?: ReactNode;
  readonly rareWords?: readonly string[];
}

/** The head of an artefact's page, in two lines: its title; what is looked at every day. The rest waits behind one word. */
export function ArtefactHead<C extends { readonly title: string }>({ summary, state, editing, onTitle, onEnter, links, children, rare, rareWords = [] }: Props<C>) {
  const { project, canEdit, isPast } = useFrame();
  const { id, author, at } = summary;
  // What is in review leads to the difference through its review.
  const newer = state !== null && state !== 'inReview' && isNewerThanAgreed(summary);
  const [open, setOpen] = useState(false);
  const justMade = (useLocation().state as { made?: boolean } | null)?.made === true;
  return (
    <header className="@container">
      <div className="flex items-start gap-3">
        <span className="pt-3 font-mono text-xs text-ink2">{id}</span>
        <div className="min-w-0 flex-1">
          <TitleField id={id} value={editing.content.title} readOnly={!canEdit} onChange={onTitle ?? ((title) => editing.update((c) => ({ ...c, title })))} focus={justMade} {...(onEnter === undefined ? {} : { onEnter })} />
        </div>
        <nav aria-label={`More of ${id}`} className="flex gap-3 pt-3 text-xs text-ink2 print:hidden [&_a]:whitespace-nowrap [&_a]:underline [&_a]:decoration-rule2 [&_a]:underline-offset-2 [&_a:hover]:decoration-current">
          {links}
          {state !== null && <InReview id={id} />}
          {newer && (
            <Link to={`${address.versions(project, id)}?from=${summary.agreed}&to=${summary.version}`} title="What changed since it was agreed">
              v{summary.agreed} was agreed
            </Link>
          )}
          <Link to={address.versions(project, id)}>Versions</Link>
        </nav>
      </div>
      <div className="mt-1.5">
        <SaveBar id={id} state={state} author={author} at={at} editing={editing}>
          {children}
          {!open && rareWords.length > 0 && <span className="hidden print:inline">{rareWords.join(' · ')}</span>}
          {(rare !== undefined || !isPast) && (
            <button type="button" aria-expanded={open} className="inline-flex h-chip items-center gap-1 whitespace-nowrap rounded-field px-1 text-xs text-ink2 hover:bg-page2 print:hidden" onClick={() => setOpen(!open)}>
              {open ? 'Less' : 'More'}
              {!open && rareWords.length > 0 && <span className="hidden max-w-[3.5rem] truncate @2xl:inline-block">· {rareWords.join(' · ')}</span>}
              <ChevronDown size={12} aria-hidden="true" className={open ? 'rotate-180' : ''} />
            </button>
          )}
        </SaveBar>
      </div>
      {open && <div className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1.5">{rare}<Follow id={id} /><SendByMailButton of={{ what: 'artefact', id }} words={id} /><GiveLinkButton id={id} /></div>}
    </header>
  );
}
