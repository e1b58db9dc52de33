import type { ArtefactState } from '@caderno/core/artefacts';
import { settingsWords, type Change } from '@caderno/contract';
import { STATE_WORD, countOf } from './words.ts';

/** What the words for a change are made of. */
export type WordedChange = Pick<Change, 'action' | 'artefact' | 'title' | 'size' | 'detail' | 'toVersion' | 'undid'>;

/** What a command did to many. */
export function manyWords(change: WordedChange): string {
  const many = countOf(change.size, 'artefact');
  switch (change.action) {
    case 'import':
      return `Import of ${change.detail}`;
    case 'settings':
      return 'Settings of the project';
    case 'split':
      return `${change.artefact ?? ''} ${change.title}, split`;
    case 'merge':
      return `${change.artefact ?? ''} ${change.title}, merged`;
    case 'settle':
      return `Suspect links of ${many}`;
    case 'write':
      return `${change.detail}: ${many}`;
    case 'rename':
      return `${change.detail} renamed in ${many}`;
    case 'baseline':
      return `Baseline ${change.detail}`;
    case 'review':
      return `${capital(entryWords(change))}: ${many}`;
    case 'undo':
      return entryWords(change);
    default:
      return many;
  }
}

/** `saved v2 of R-7 Late fees`, `created C-48 Roll over`, `Import of handbook`. */
export function changeWords(change: WordedChange): string {
  if (change.artefact === null || change.size > 1) return manyWords(change);
  const what = `${change.artefact} ${change.title}`;
  if (change.action === 'create') return `${entryWords(change)} ${what}`;
  return change.action === 'save' ? `${entryWords(change)} of ${what}` : `${entryWords(change)}: ${what}`;
}

/** What a command did to one artefact, after the name of who did it. */
export function entryWords(change: WordedChange): string {
  switch (change.action) {
    case 'create':
      return 'created';
    case 'save':
      return `saved v${change.toVersion ?? ''}`;
    case 'state':
      return `set to ${STATE_WORD[change.detail as ArtefactState]}`;
    case 'move':
      return 'moved in the outline';
    case 'import':
      return 'imported';
    case 'split':
      return `split into ${change.detail} requirements`;
    case 'merge':
      return `merged with ${change.detail}`;
    case 'settle':
      return 'said that links are still right';
    case 'write':
      return `wrote ${change.detail}`;
    case 'takeOut':
      return `took “${change.detail}” out into shared steps`;
    case 'rename':
      return `renamed ${change.detail}`;
    case 'settings':
      return `changed ${settingsWords(change.detail.split(', '))}`;
    case 'baseline':
      return `took the baseline ${change.detail}`;
    case 'review':
      return reviewWords(change.detail);
    case 'undo':
      return `undid ${undidWords(change)}${change.toVersion === null ? '' : `, as v${change.toVersion}`}`;
  }
}

/** Whether the journal can undo it: what a review did and a baseline stay. */
export function mayBeUndone({ action, undone }: Pick<Change, 'action' | 'undone'>): boolean {
  return !undone && action !== 'review' && action !== 'baseline';
}

const DEED_WORD: Readonly<Record<string, string>> = { asked: 'asked for', again: 'asked for again', agreed: 'agreed to', objected: 'objected to', waiting: 'no longer objected to', ended: 'no longer asked for' };

function reviewWords(detail: string): string {
  const [number = '', deed = ''] = detail.split(' ');
  return `${DEED_WORD[deed] ?? deed} in review ${number}`;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Of the same artefact its name is not said twice. */
function undidWords({ undid, artefact, size }: WordedChange): string {
  if (undid === null) return 'an earlier change';
  const worded = { ...undid, undid: null };
  return `“${size === 1 && undid.size === 1 && undid.artefact === artefact ? entryWords(worded) : changeWords(worded)}”`;
}
