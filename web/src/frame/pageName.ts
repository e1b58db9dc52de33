import { useEffect, useId, useSyncExternalStore } from 'react';

const named = new Map<string, string>();
const listeners = new Set<() => void>();

function changed(): void {
  for (const listener of listeners) listener();
}

/** Names the page in the browser's title as long as the component is there; the one that came last counts. */
export function usePageName(name: string): void {
  const owner = useId();
  useEffect(() => {
    named.set(owner, name);
    changed();
    return () => {
      named.delete(owner);
      changed();
    };
  }, [name, owner]);
}

/** What the open page is called; empty when it says nothing. */
export function useNameOfPage(): string {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => [...named.values()].at(-1) ?? '',
  );
}

const PAGE_WORD: Readonly<Record<string, string>> = {
  basis: 'Basis', conditions: 'Conditions', condition: 'Conditions', cases: 'Cases', scenarios: 'Scenarios', phrasebook: 'Phrasebook', 'scenarios-twice': 'Scenarios written twice', shared: 'Shared', read: 'Read-through', reuse: 'Reuse', alike: 'Alike steps', coverage: 'Coverage', matrix: 'Matrix', trend: 'Coverage over time', counts: 'Counts', report: 'Report', specification: 'Specification', questions: 'Questions', agenda: 'Agenda',
  inbox: 'Inbox', mails: 'Mails you sent', remarks: 'Remarks', reviews: 'Reviews', baselines: 'Baselines', suites: 'Suites', 'hand-offs': 'Hand-offs', suspect: 'Suspect links', glossary: 'Glossary', import: 'Import', settings: 'Settings', journal: 'Journal', people: 'People', account: 'Your account', server: 'Accounts of the server', versions: 'Versions',
};

/** `C-48 Roll over · Cases · Fonte Clara – Caderno`. */
export function browserTitle(name: string, pathname: string, project: string): string {
  const page = PAGE_WORD[pathname.split('/')[2] ?? ''] ?? '';
  return `${[name, page, project].filter((part) => part !== '').join(' · ')} – Caderno`;
}
