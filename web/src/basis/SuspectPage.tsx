import { kindOfId } from '@caderno/core/artefacts';
import type { SuspectLink } from '@caderno/contract';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useSuspectLinks, useVersion } from '../api/index.ts';
import { useStillRight } from '../artefacts/index.ts';
import { Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { Button, Empty, KIND_NAME, TextButton, countOf } from '../look/index.ts';
import { Difference } from '../versions/index.ts';

const keyOf = (link: SuspectLink): string => `${link.from} ${link.to}`;

/** Links whose target changed in meaning: what changed since the link was made, and the word that it is still right; also for many at once. */
export function SuspectPage() {
  const { project, canEdit } = useFrame();
  const links = useSuspectLinks(project).data;
  const [at, setAt] = useState<string | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const stillRight = useStillRight();
  const settle = (links: readonly SuspectLink[]): void => stillRight(links, () => setChosen(new Set()));
  const current = links?.find((l) => keyOf(l) === at) ?? links?.[0];
  const toSettle = (links ?? []).filter((l) => chosen.has(keyOf(l)));
  useSuspectCommands(links ?? [], current, canEdit, setAt, settle);
  const toggle = (link: SuspectLink): void => setChosen((c) => (c.has(keyOf(link)) ? new Set([...c].filter((k) => k !== keyOf(link))) : new Set([...c, keyOf(link)])));
  return (
    <Spread
      chapter="suspect"
      leftShare={46}
      opened={at}
      leftLabel="Suspect links"
      rightLabel="What changed"
      left={
        <div className="flex h-full flex-col">
          <header className="flex items-center gap-3 px-5 pb-2.5 pt-5">
            <h1 className="font-serif text-xl font-semibold">Suspect links</h1>
            {links !== undefined && <span className="text-xs text-ink2">{countOf(links.length, 'link')}</span>}
            <span className="ml-auto" />
            {canEdit && toSettle.length > 0 && <Button onClick={() => settle(toSettle)}>{countOf(toSettle.length, 'link')} still right</Button>}
          </header>
          {links?.length === 0 ? (
            <Empty title="Nothing is suspect">When a requirement or a condition changes in meaning, what hangs on it stands here until somebody says it is still right.</Empty>
          ) : (
            <ul aria-label="Suspect links" className="min-h-0 flex-1 overflow-y-auto">
              {groups(links ?? []).map(([to, group]) => (
                <li key={to}>
                  <div className="flex items-center gap-2 border-b border-ink px-5 pb-0.5 pt-3 text-sm font-semibold">
                    <span className="font-mono text-xs">{to}</span>
                    <span className="truncate">{group[0]?.toTitle}</span>
                    {canEdit && group.length > 1 && (
                      <TextButton className="ml-auto shrink-0 text-xs font-normal" onClick={() => setChosen((c) => new Set([...c, ...group.map(keyOf)]))}>
                        choose all {group.length}
                      </TextButton>
                    )}
                  </div>
                  <ul>
                    {group.map((link) => (
                      <LinkLine key={keyOf(link)} link={link} isCurrent={link === current} chosen={chosen.has(keyOf(link))} canEdit={canEdit} onOpen={() => setAt(keyOf(link))} onToggle={() => toggle(link)} />
                    ))}
                  </ul>
                </li>
              ))}
            </ul>
          )}
        </div>
      }
      right={current === undefined ? <Empty title="Nothing to look at">The difference stands here.</Empty> : <WhatChanged key={keyOf(current)} link={current} {...(canEdit ? { onSettle: () => settle([current]) } : {})} />}
    />
  );
}

function groups(links: readonly SuspectLink[]): [string, SuspectLink[]][] {
  const byTarget = new Map<string, SuspectLink[]>();
  for (const link of links) byTarget.set(link.to, [...(byTarget.get(link.to) ?? []), link]);
  return [...byTarget];
}

interface LineProps {
  readonly link: SuspectLink;
  readonly isCurrent: boolean;
  readonly chosen: boolean;
  readonly canEdit: boolean;
  readonly onOpen: () => void;
  readonly onToggle: () => void;
}

function LinkLine({ link, isCurrent, chosen, canEdit, onOpen, onToggle }: LineProps) {
  return (
    <li className={`flex items-center gap-3 border-b border-rule px-5 ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
      {canEdit && <input type="checkbox" aria-label={`Choose ${link.from}`} checked={chosen} onChange={onToggle} />}
      <button type="button" aria-current={isCurrent} onClick={onOpen} className="flex min-w-0 flex-1 items-baseline gap-3 py-2 text-left">
        <span className="w-10 shrink-0 font-mono text-xs text-ink2">{link.from}</span>
        <span className="truncate">{link.fromTitle}</span>
        <span className="ml-auto shrink-0 text-xs text-ink2">
          saw v{link.seen}, now v{link.now}
        </span>
      </button>
    </li>
  );
}

function WhatChanged({ link, onSettle }: { readonly link: SuspectLink; readonly onSettle?: () => void }) {
  const { project } = useFrame();
  const before = useVersion(project, link.to, link.seen).data;
  const now = useVersion(project, link.to, link.now).data;
  return (
    <article className="px-8 pb-12 pt-5">
      <div className="text-xs text-ink2">
        {KIND_NAME[kindOfId(link.to)][0]} <span className="font-mono">{link.to}</span>, v{link.seen} → v{link.now}
      </div>
      <h2 className="mt-1 font-serif text-2xl font-semibold">{link.toTitle}</h2>
      <p className="mt-2">
        The {KIND_NAME[kindOfId(link.from)][0]}{' '}
        <Link className="underline" to={address.artefact(project, link.from)}>
          <span className="font-mono text-sm">{link.from}</span> {link.fromTitle}
        </Link>{' '}
        was made when it read otherwise. Is it still right?
      </p>
      <div className="mt-3 flex gap-2">
        {onSettle !== undefined && (
          <Button look="accent" onClick={onSettle}>
            Still right
          </Button>
        )}
        <Link to={address.artefact(project, link.from)} className="inline-flex h-8 items-center rounded-panel border border-rule2 bg-page px-3 text-sm font-semibold hover:bg-page2">
          Go there and mend it
        </Link>
      </div>
      {before === undefined || now === undefined ? <p className="mt-4 text-ink2">Reading …</p> : <Difference from={before.content} to={now.content} />}
    </article>
  );
}

function useSuspectCommands(links: readonly SuspectLink[], current: SuspectLink | undefined, canEdit: boolean, open: (key: string) => void, settle: (links: readonly SuspectLink[]) => void): void {
  const commands = useMemo<Command[]>(() => {
    const ordered = groups(links).flatMap(([, group]) => group);
    const at = current === undefined ? -1 : ordered.indexOf(current);
    const go = (index: number): void => {
      const link = ordered[index];
      if (link !== undefined) open(keyOf(link));
    };
    return [
      { id: 'next-link', title: 'The next suspect link', keys: 'ArrowDown', keyLabel: '↓', run: () => go(at + 1) },
      { id: 'previous-link', title: 'The suspect link before', keys: 'ArrowUp', keyLabel: '↑', run: () => go(at - 1) },
      ...(canEdit && current !== undefined ? [{ id: 'still-right', title: 'Say that the link is still right', keys: 'r', keyLabel: 'r', changes: true, run: () => settle([current]) }] : []),
    ];
  }, [canEdit, current, links, open, settle]);
  useCommands(commands);
}
