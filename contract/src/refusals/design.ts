import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { keepersWords } from '../keepers.ts';
import type { PlacedIssue } from '../placedIssue.ts';
import type { TrackerFailure } from '../tracker.ts';
import type { Refusals } from './refusals.ts';

/** What is refused of a project and its artefacts, as they are read and changed. */
export type DesignRefusal =
  | { readonly code: 'project_unknown'; readonly project: string }
  | { readonly code: 'artefact_unknown'; readonly id: string }
  | { readonly code: 'version_unknown'; readonly id: string; readonly version: number }
  | { readonly code: 'change_unknown'; readonly change: string }
  | { readonly code: 'query_unknown' }
  | { readonly code: 'too_many_queries'; readonly of: 'project' | 'person'; readonly limit: number }
  | { readonly code: 'kind_mismatch'; readonly id: string; readonly kind: ArtefactKind }
  | { readonly code: 'title_missing' }
  | { readonly code: 'content_invalid'; readonly title: string; readonly issues: readonly PlacedIssue[] }
  | { readonly code: 'artefact_broken'; readonly id: ArtefactId; readonly version: number }
  | { readonly code: 'link_unknown'; readonly id: ArtefactId }
  | { readonly code: 'version_moved'; readonly id: ArtefactId; readonly head: number; readonly base: number; readonly author: string }
  | { readonly code: 'outline_circle'; readonly id: ArtefactId }
  | { readonly code: 'outline_too_deep'; readonly limit: number }
  | { readonly code: 'use_circle'; readonly path: readonly ArtefactId[] }
  | { readonly code: 'uses_too_deep'; readonly limit: number }
  | { readonly code: 'condition_circle'; readonly id: ArtefactId }
  | { readonly code: 'dependency_circle'; readonly path: readonly ArtefactId[] }
  | { readonly code: 'attachment_unknown'; readonly name: string }
  | { readonly code: 'attachment_type_refused'; readonly name: string }
  | { readonly code: 'attachment_too_large'; readonly limit: number }
  | { readonly code: 'attachment_too_wide'; readonly side: number; readonly pixels: number }
  | { readonly code: 'quota_exceeded'; readonly of: 'project' | 'person'; readonly limit: number }
  | { readonly code: 'undo_blocked'; readonly id: ArtefactId; readonly paths: readonly string[] }
  | { readonly code: 'undo_done_already'; readonly change: string }
  | { readonly code: 'still_used'; readonly id: ArtefactId; readonly users: readonly ArtefactId[] }
  | { readonly code: 'kept_by_others'; readonly id: ArtefactId; readonly module: string; readonly people: readonly string[] }
  | { readonly code: 'settings_moved'; readonly paths: readonly string[] }
  | { readonly code: 'search_unreadable'; readonly text: string }
  | { readonly code: 'too_many_made'; readonly limit: number }
  | { readonly code: 'merge_with_itself'; readonly id: ArtefactId }
  | { readonly code: 'links_settled_already' }
  | { readonly code: 'tracker_absent' }
  | { readonly code: 'tracker_failed'; readonly failure: TrackerFailure }
  | { readonly code: 'constant_unknown' }
  | { readonly code: 'project_exists'; readonly project: string }
  /** A draft that was typed later is kept already, from another window or after a pause of the network. */
  | { readonly code: 'draft_older' };

/** Their statuses, and what is said of each. */
export const DESIGN_REFUSALS: Refusals<DesignRefusal> = {
  project_unknown: { status: 404, sentence: (refusal) => `You have no project ‘${refusal.project}’.` },
  artefact_unknown: { status: 404, sentence: (refusal) => `There is no ${refusal.id} in this project.` },
  version_unknown: { status: 404, sentence: (refusal) => `${refusal.id} has no version ${refusal.version}.` },
  change_unknown: { status: 404, sentence: (refusal) => `The journal has no entry ${refusal.change}.` },
  query_unknown: { status: 404, sentence: () => 'This saved query is no longer there. The list is as it was.' },
  too_many_queries: { status: 422, sentence: (refusal) => `${refusal.of === 'project' ? 'The project keeps' : 'You keep'} ${refusal.limit} queries already, and no more fit. Nothing was saved; remove one that nobody needs.` },
  kind_mismatch: { status: 422, sentence: (refusal) => `${refusal.id} is not a ${refusal.kind}. Nothing was changed.` },
  title_missing: { status: 422, sentence: () => 'A version needs a title. Your text is kept as a draft; give it a title and save again.' },
  content_invalid: { status: 422, sentence: (refusal) => `‘${refusal.title}’ would no longer be readable: ${refusal.issues.slice(0, 3).map((i) => `${i.path} ${i.message}`).join('; ')}. Nothing was changed.` },
  artefact_broken: { status: 422, sentence: (refusal) => `What is stored as v${refusal.version} of ${refusal.id} cannot be read. It is kept as it is; open ${refusal.id} to restore an earlier version.` },
  link_unknown: { status: 422, sentence: (refusal) => `This names ${refusal.id}, which is not in the project. Your text is kept as a draft; take the link out and save again.` },
  version_moved: { status: 409, sentence: (refusal) => `${refusal.author} saved v${refusal.head} after you began from v${refusal.base}. Your text is kept as a draft; compare and save again.` },
  outline_circle: { status: 422, sentence: (refusal) => `${refusal.id} cannot stand below itself. Nothing was moved.` },
  outline_too_deep: { status: 422, sentence: (refusal) => `The outline goes ${refusal.limit} levels deep and no deeper. Nothing was moved.` },
  use_circle: { status: 422, sentence: (refusal) => `This would lead in a circle: ${refusal.path.join(' uses ')}. Nothing was saved; take one of these uses away.` },
  uses_too_deep: { status: 422, sentence: (refusal) => `Calls and shared steps may be nested ${refusal.limit} deep and no deeper. Nothing was saved.` },
  condition_circle: { status: 422, sentence: (refusal) => `${refusal.id} cannot stand below itself. Nothing was saved.` },
  dependency_circle: { status: 422, sentence: (refusal) => `These cases would wait for each other: ${refusal.path.join(' depends on ')}. Nothing was saved; take one of these dependencies away.` },
  attachment_unknown: { status: 422, sentence: (refusal) => `The file ‘${refusal.name}’ is not kept in this project. Your text is kept as a draft; add the file again and save.` },
  attachment_type_refused: { status: 415, sentence: (refusal) => `‘${refusal.name}’ is empty, or of a kind that is not kept here. It was not added; pictures (PNG, JPEG, GIF, WebP), PDF, text, spreadsheets, documents and archives are.` },
  attachment_too_large: { status: 413, sentence: (refusal) => `The file is larger than the ${Math.floor(refusal.limit / 1024 / 1024)} MB one may have. It was not added; make it smaller, or link to where it is.` },
  attachment_too_wide: { status: 413, sentence: (refusal) => `The picture is larger than ${refusal.side.toLocaleString('en')} pixels on a side or ${Math.floor(refusal.pixels / 1e6)} million in all. Nothing was added; make it smaller.` },
  quota_exceeded: { status: 413, sentence: (refusal) => `${refusal.of === 'project' ? 'The attached files of this project' : 'Your files that wait to be imported'} would take more than the ${Math.floor(refusal.limit / 1024 / 1024)} MB there are for them. Nothing was added; ${refusal.of === 'project' ? 'take out files that are no longer needed' : 'import or stop those that wait'}.` },
  undo_blocked: { status: 409, sentence: (refusal) => `${refusal.id} was changed at the same places since (${refusal.paths.slice(0, 3).join(', ')}). Nothing was undone; restore an earlier version instead.` },
  undo_done_already: { status: 409, sentence: () => 'This was undone already.' },
  still_used: { status: 409, sentence: (refusal) => `${refusal.id} is used by ${refusal.users.slice(0, 5).join(', ')}. Nothing was undone; withdraw it instead.` },
  kept_by_others: { status: 403, sentence: (refusal) => `${refusal.id} is in ${refusal.module}, which only ${keepersWords(refusal.people)} of the project change. Nothing was changed; ask one of them, or leave a remark.` },
  settings_moved: { status: 409, sentence: (refusal) => `Somebody else changed the same settings meanwhile (${refusal.paths.slice(0, 3).join(', ')}). Nothing was saved; look at theirs and save again.` },
  search_unreadable: { status: 422, sentence: (refusal) => refusal.text === '' ? 'There is nothing to look for. Write the words that are to be found.' : `The pattern “${refusal.text}” cannot be read. Patterns are regular expressions in the syntax of RE2; nothing was changed.` },
  too_many_made: { status: 422, sentence: (refusal) => `One command makes ${refusal.limit.toLocaleString('en')} and no more. Nothing was made; choose fewer.` },
  merge_with_itself: { status: 422, sentence: (refusal) => `${refusal.id} cannot be merged with itself or with what stands above it. Nothing was changed.` },
  links_settled_already: { status: 409, sentence: () => 'These links are no longer suspect; somebody has settled them meanwhile. Nothing was changed.' },
  tracker_absent: { status: 409, sentence: () => 'No story tracker is connected. A lead connects one in the project’s settings.' },
  tracker_failed: { status: 502, sentence: (refusal) => `The story tracker ${TRACKER_FAILURE_WORD[refusal.failure]}. Nothing was changed; try again later.` },
  constant_unknown: { status: 404, sentence: () => 'The project has no such secret constant with a value.' },
  project_exists: { status: 409, sentence: (refusal) => `There is a project with the key ${refusal.project} already. Choose another key.` },
  draft_older: { status: 409, sentence: () => 'A text that you typed later, in another window perhaps, is kept already. This one is still here; save it as a version if it is the one you want.' },
};

const TRACKER_FAILURE_WORD: Record<TrackerFailure, string> = {
  unreachable: 'does not answer, or is not among the hosts that an administrator of this server allows',
  slow: 'takes too long to answer',
  refused: 'refuses the request',
  unreadable: 'answers with something that cannot be read',
  too_large: 'answers with more than can be taken in',
};
