import type { ArtefactId, ArtefactKind, ArtefactState } from '@caderno/core/artefacts';
import type { TokenScope } from './accounts.ts';
import type { Role } from './people.ts';
import type { PlacedIssue } from './placedIssue.ts';
import type { TrackerFailure } from './tracker.ts';

/**
 * Everything the server refuses, as a code with its facts. Sentences are made by {@link refusalSentence} only.
 * Codes are stable and one to one with their meaning.
 */
export type Refusal =
  | { readonly code: 'request_invalid'; readonly issues: readonly PlacedIssue[] }
  | { readonly code: 'body_unreadable' }
  | { readonly code: 'body_type_unsupported'; readonly expected: string }
  | { readonly code: 'body_too_large'; readonly limit: number }
  | { readonly code: 'body_too_slow'; readonly seconds: number }
  | { readonly code: 'not_signed_in' }
  | { readonly code: 'sign_in_failed' }
  | { readonly code: 'too_many_attempts'; readonly seconds: number }
  | { readonly code: 'origin_forged' }
  | { readonly code: 'role_too_low'; readonly needed: Role; readonly have: Role }
  | { readonly code: 'route_unknown' }
  | { readonly code: 'project_unknown'; readonly project: string }
  | { readonly code: 'artefact_unknown'; readonly id: string }
  | { readonly code: 'version_unknown'; readonly id: string; readonly version: number }
  | { readonly code: 'change_unknown'; readonly change: string }
  | { readonly code: 'query_unknown' }
  | { readonly code: 'remark_unknown' }
  | { readonly code: 'remark_not_yours' }
  | { readonly code: 'too_many_remarks'; readonly limit: number }
  | { readonly code: 'baseline_unknown' }
  | { readonly code: 'moment_is_past' }
  | { readonly code: 'baseline_of_nothing' }
  | { readonly code: 'undo_of_baseline' }
  | { readonly code: 'review_unknown' }
  | { readonly code: 'review_ended' }
  | { readonly code: 'review_of_nothing' }
  | { readonly code: 'review_not_asked' }
  | { readonly code: 'review_moved'; readonly id: ArtefactId; readonly version: number }
  | { readonly code: 'reviewers_too_few'; readonly id: ArtefactId; readonly needed: number | 'all'; readonly authors: boolean }
  | { readonly code: 'person_unknown' }
  | { readonly code: 'state_by_review'; readonly state: ArtefactState }
  | { readonly code: 'undo_of_review' }
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
  | { readonly code: 'settings_moved'; readonly paths: readonly string[] }
  | { readonly code: 'import_unknown' }
  | { readonly code: 'import_unreadable'; readonly errors: number }
  | { readonly code: 'import_conflicts_open'; readonly count: number }
  | { readonly code: 'import_changes_nothing' }
  | { readonly code: 'import_cancelled' }
  | { readonly code: 'import_running' }
  | { readonly code: 'import_lost' }
  | { readonly code: 'files_unavailable' }
  | { readonly code: 'import_too_heavy' }
  | { readonly code: 'file_too_large'; readonly limit: number }
  /** `at`: where in it; empty: as a whole. */
  | { readonly code: 'design_unreadable'; readonly at: string; readonly reason: string }
  | { readonly code: 'features_unreadable'; readonly wrong: 'none' | 'damaged' | 'too_many' }
  | { readonly code: 'design_too_large'; readonly bytes: number; readonly limit: number; readonly files: boolean }
  | { readonly code: 'export_cell_too_long'; readonly id: ArtefactId; readonly limit: number }
  | { readonly code: 'too_many_instances'; readonly id: ArtefactId }
  | { readonly code: 'search_unreadable'; readonly text: string }
  | { readonly code: 'too_many_made'; readonly limit: number }
  | { readonly code: 'merge_with_itself'; readonly id: ArtefactId }
  | { readonly code: 'links_settled_already' }
  | { readonly code: 'tracker_absent' }
  | { readonly code: 'tracker_failed'; readonly failure: TrackerFailure }
  | { readonly code: 'set_up_already' }
  | { readonly code: 'set_up_word_wrong' }
  | { readonly code: 'demo_closed' }
  | { readonly code: 'demo_person' }
  | { readonly code: 'demo_alone' }
  | { readonly code: 'password_wrong' }
  | { readonly code: 'password_weak' }
  /** `at`: the path in the folder; '' is the folder itself. */
  | { readonly code: 'folder_unreadable'; readonly at: string; readonly reason: string }
  | { readonly code: 'folder_newer'; readonly version: number }
  | { readonly code: 'folder_changed'; readonly changed: number; readonly missing: number; readonly unknown: number; readonly first: readonly string[] }
  | { readonly code: 'folder_too_large'; readonly files: number; readonly limit: number }
  | { readonly code: 'reset_link_ended' }
  | { readonly code: 'invitation_ended' }
  | { readonly code: 'address_link_ended' }
  | { readonly code: 'read_link_ended' }
  | { readonly code: 'offer_not_there' }
  | { readonly code: 'mail_off' }
  | { readonly code: 'mail_failed'; readonly answer: string }
  | { readonly code: 'mail_unknown' }
  | { readonly code: 'mail_outside' }
  | { readonly code: 'too_many_mails'; readonly limit: number }
  | { readonly code: 'account_unknown'; readonly who: string }
  | { readonly code: 'member_already'; readonly who: string }
  | { readonly code: 'last_administrator' }
  | { readonly code: 'session_unknown' }
  | { readonly code: 'token_unknown' }
  /** `needed`: what a token must allow; null: nobody does this with a token. */
  | { readonly code: 'token_not_enough'; readonly needed: TokenScope | null }
  | { readonly code: 'tokens_too_many'; readonly limit: number }
  | { readonly code: 'constant_unknown' }
  | { readonly code: 'person_exists'; readonly email: string }
  | { readonly code: 'project_exists'; readonly project: string }
  | { readonly code: 'database_unavailable' }
  | { readonly code: 'disk_full' }
  | { readonly code: 'server_stopping' }
  | { readonly code: 'host_unknown'; readonly host: string }
  | { readonly code: 'command_id_taken' }
  | { readonly code: 'too_much_at_once'; readonly seconds: number }
  /** Another command holds what this one needs, for longer than one waits. */
  | { readonly code: 'project_busy'; readonly seconds: number }
  /** A draft that was typed later is kept already, from another window or after a pause of the network. */
  | { readonly code: 'draft_older' }
  | { readonly code: 'too_many_streams'; readonly limit: number }
  | { readonly code: 'computation_too_heavy' }
  | { readonly code: 'fault'; readonly reference: string };

/** The stable name of a refusal. */
export type RefusalCode = Refusal['code'];

/** The HTTP status of every code; a code without one does not compile. */
export const STATUS_OF_REFUSAL = {
  request_invalid: 400,
  body_unreadable: 400,
  body_type_unsupported: 415,
  body_too_large: 413,
  body_too_slow: 408,
  not_signed_in: 401,
  sign_in_failed: 401,
  too_many_attempts: 429,
  origin_forged: 403,
  role_too_low: 403,
  route_unknown: 404,
  project_unknown: 404,
  artefact_unknown: 404,
  version_unknown: 404,
  change_unknown: 404,
  query_unknown: 404,
  remark_unknown: 404,
  remark_not_yours: 403,
  too_many_remarks: 422,
  baseline_unknown: 404,
  moment_is_past: 409,
  baseline_of_nothing: 422,
  undo_of_baseline: 409,
  review_unknown: 404,
  review_ended: 409,
  review_of_nothing: 422,
  review_not_asked: 403,
  review_moved: 409,
  reviewers_too_few: 422,
  person_unknown: 422,
  state_by_review: 409,
  undo_of_review: 409,
  too_many_queries: 422,
  kind_mismatch: 422,
  title_missing: 422,
  content_invalid: 422,
  artefact_broken: 422,
  link_unknown: 422,
  version_moved: 409,
  outline_circle: 422,
  outline_too_deep: 422,
  use_circle: 422,
  uses_too_deep: 422,
  condition_circle: 422,
  dependency_circle: 422,
  attachment_unknown: 422,
  attachment_type_refused: 415,
  attachment_too_large: 413,
  attachment_too_wide: 413,
  quota_exceeded: 413,
  undo_blocked: 409,
  undo_done_already: 409,
  still_used: 409,
  settings_moved: 409,
  import_unknown: 404,
  import_unreadable: 422,
  import_conflicts_open: 422,
  import_changes_nothing: 422,
  import_cancelled: 409,
  import_running: 409,
  import_lost: 409,
  files_unavailable: 503,
  import_too_heavy: 422,
  file_too_large: 413,
  design_unreadable: 422,
  features_unreadable: 422,
  design_too_large: 422,
  export_cell_too_long: 422,
  too_many_instances: 422,
  search_unreadable: 422,
  too_many_made: 422,
  merge_with_itself: 422,
  links_settled_already: 409,
  tracker_absent: 409,
  tracker_failed: 502,
  set_up_already: 409,
  set_up_word_wrong: 403,
  demo_closed: 403,
  demo_person: 422,
  demo_alone: 409,
  password_wrong: 422,
  password_weak: 422,
  folder_unreadable: 422,
  folder_newer: 422,
  folder_changed: 409,
  folder_too_large: 413,
  reset_link_ended: 410,
  invitation_ended: 410,
  read_link_ended: 410,
  offer_not_there: 409,
  address_link_ended: 410,
  mail_off: 409,
  mail_failed: 502,
  mail_unknown: 404,
  mail_outside: 403,
  too_many_mails: 409,
  account_unknown: 404,
  member_already: 409,
  last_administrator: 409,
  session_unknown: 404,
  token_unknown: 404,
  token_not_enough: 403,
  tokens_too_many: 409,
  constant_unknown: 404,
  person_exists: 409,
  project_exists: 409,
  database_unavailable: 503,
  disk_full: 507,
  server_stopping: 503,
  host_unknown: 421,
  command_id_taken: 409,
  too_much_at_once: 429,
  project_busy: 503,
  draft_older: 409,
  too_many_streams: 429,
  computation_too_heavy: 422,
  fault: 500,
} as const satisfies Record<RefusalCode, number>;

const TRACKER_FAILURE_WORD: Record<TrackerFailure, string> = {
  unreachable: 'does not answer, or is not among the hosts that an administrator of this server allows',
  slow: 'takes too long to answer',
  refused: 'refuses the request',
  unreadable: 'answers with something that cannot be read',
  too_large: 'answers with more than can be taken in',
};

/** What happened, what was kept and what to do, in words. */
export function refusalSentence(refusal: Refusal): string {
  switch (refusal.code) {
    case 'request_invalid':
      return `This could not be taken as it is: ${refusal.issues.slice(0, 3).map((i) => `${i.path || 'the request'} ${i.message}`).join('; ')}. Nothing was changed.`;
    case 'body_unreadable':
      return 'The request is not readable JSON. Nothing was changed.';
    case 'body_type_unsupported':
      return `The request must be sent as ${refusal.expected}. Nothing was changed.`;
    case 'body_too_large':
      return `This is larger than the ${Math.floor(refusal.limit / 1024 / 1024)} MB a request may have. Nothing was changed; make it smaller or split it.`;
    case 'body_too_slow':
      return `This did not arrive within ${refusal.seconds} seconds and was not taken in. Nothing was changed; try again on a better line, or with something smaller.`;
    case 'not_signed_in':
      return 'You are not signed in, or the session has ended. Sign in and try again; drafts are kept.';
    case 'sign_in_failed':
      return 'No account has this address and password. Check both and try again.';
    case 'too_many_attempts':
      return `Too many attempts. Wait ${refusal.seconds} seconds and try again.`;
    case 'origin_forged':
      return 'The request did not come from Caderno’s own pages and was refused. Nothing was changed.';
    case 'role_too_low':
      return `This takes the role of ${refusal.needed}; yours here is ${refusal.have}. Nothing was changed; ask an administrator of the project.`;
    case 'route_unknown':
      return 'There is nothing at this address.';
    case 'project_unknown':
      return `You have no project ‘${refusal.project}’.`;
    case 'artefact_unknown':
      return `There is no ${refusal.id} in this project.`;
    case 'version_unknown':
      return `${refusal.id} has no version ${refusal.version}.`;
    case 'too_many_queries':
      return `${refusal.of === 'project' ? 'The project keeps' : 'You keep'} ${refusal.limit} queries already, and no more fit. Nothing was saved; remove one that nobody needs.`;
    case 'query_unknown':
      return 'This saved query is no longer there. The list is as it was.';
    case 'remark_unknown':
      return 'This remark is no longer there. Nothing was changed; what you wrote is still in its field.';
    case 'remark_not_yours':
      return 'Only who wrote a remark can say it otherwise, and not once it was taken back. Nothing was changed; you can answer it.';
    case 'too_many_remarks':
      return `${refusal.limit} remarks are the most for one artefact. Nothing was added.`;
    case 'moment_is_past':
      return 'This is the project as a baseline holds it: nothing can be changed here. Go to the project of now to work on it.';
    case 'baseline_unknown':
      return 'There is no such baseline in this project.';
    case 'baseline_of_nothing':
      return 'None of these is there any more: no baseline was taken.';
    case 'undo_of_baseline':
      return 'A baseline stays: it is not undone. Nothing was changed.';
    case 'review_unknown':
      return 'There is no such review in this project.';
    case 'review_ended':
      return 'This review has ended. What was agreed in it stays agreed; ask for a new review for anything else.';
    case 'review_of_nothing':
      return 'None of these can be reviewed now: they are agreed as they are, in another review, withdrawn, or as they were when somebody objected. Nothing was changed.';
    case 'review_not_asked':
      return 'This review does not ask you. Nothing was changed; whoever asked for it can add you.';
    case 'review_moved':
      return `${refusal.id} is asked for as v${refusal.version} by now. Your answer was not taken; look at what changed and answer again.`;
    case 'reviewers_too_few':
      return `Too few of those asked may agree to ${refusal.id}: ${refusal.needed === 'all' ? 'everybody who is asked' : refusal.needed === 1 ? 'somebody' : `${refusal.needed} people`} must agree${refusal.authors ? '' : ', and not those who wrote it'}. Nothing was changed; ask more people${refusal.authors ? '' : ', or let people agree to their own work in the project’s settings'}.`;
    case 'person_unknown':
      return 'One of these people is no longer in the project. Nothing was changed; choose again.';
    case 'state_by_review':
      return `In this project ${refusal.state === 'inReview' ? 'something is in review when a review asks for it' : 'something is agreed by a review only'}. Nothing was changed; ask for a review.`;
    case 'undo_of_review':
      return 'What a review did is not undone from the journal. Nothing was changed; say otherwise in the review, or set the state.';
    case 'change_unknown':
      return `The journal has no entry ${refusal.change}.`;
    case 'kind_mismatch':
      return `${refusal.id} is not a ${refusal.kind}. Nothing was changed.`;
    case 'title_missing':
      return 'A version needs a title. Your text is kept as a draft; give it a title and save again.';
    case 'content_invalid':
      return `‘${refusal.title}’ would no longer be readable: ${refusal.issues.slice(0, 3).map((i) => `${i.path} ${i.message}`).join('; ')}. Nothing was changed.`;
    case 'artefact_broken':
      return `What is stored as v${refusal.version} of ${refusal.id} cannot be read. It is kept as it is; open ${refusal.id} to restore an earlier version.`;
    case 'link_unknown':
      return `This names ${refusal.id}, which is not in the project. Your text is kept as a draft; take the link out and save again.`;
    case 'version_moved':
      return `${refusal.author} saved v${refusal.head} after you began from v${refusal.base}. Your text is kept as a draft; compare and save again.`;
    case 'outline_circle':
      return `${refusal.id} cannot stand below itself. Nothing was moved.`;
    case 'outline_too_deep':
      return `The outline goes ${refusal.limit} levels deep and no deeper. Nothing was moved.`;
    case 'use_circle':
      return `This would lead in a circle: ${refusal.path.join(' uses ')}. Nothing was saved; take one of these uses away.`;
    case 'uses_too_deep':
      return `Calls and shared steps may be nested ${refusal.limit} deep and no deeper. Nothing was saved.`;
    case 'condition_circle':
      return `${refusal.id} cannot stand below itself. Nothing was saved.`;
    case 'dependency_circle':
      return `These cases would wait for each other: ${refusal.path.join(' depends on ')}. Nothing was saved; take one of these dependencies away.`;
    case 'attachment_unknown':
      return `The file ‘${refusal.name}’ is not kept in this project. Your text is kept as a draft; add the file again and save.`;
    case 'attachment_type_refused':
      return `‘${refusal.name}’ is empty, or of a kind that is not kept here. It was not added; pictures (PNG, JPEG, GIF, WebP), PDF, text, spreadsheets, documents and archives are.`;
    case 'attachment_too_large':
      return `The file is larger than the ${Math.floor(refusal.limit / 1024 / 1024)} MB one may have. It was not added; make it smaller, or link to where it is.`;
    case 'attachment_too_wide':
      return `The picture is larger than ${refusal.side.toLocaleString('en')} pixels on a side or ${Math.floor(refusal.pixels / 1e6)} million in all. Nothing was added; make it smaller.`;
    case 'quota_exceeded':
      return `${refusal.of === 'project' ? 'The attached files of this project' : 'Your files that wait to be imported'} would take more than the ${Math.floor(refusal.limit / 1024 / 1024)} MB there are for them. Nothing was added; ${refusal.of === 'project' ? 'take out files that are no longer needed' : 'import or stop those that wait'}.`;
    case 'undo_blocked':
      return `${refusal.id} was changed at the same places since (${refusal.paths.slice(0, 3).join(', ')}). Nothing was undone; restore an earlier version instead.`;
    case 'undo_done_already':
      return 'This was undone already.';
    case 'still_used':
      return `${refusal.id} is used by ${refusal.users.slice(0, 5).join(', ')}. Nothing was undone; withdraw it instead.`;
    case 'settings_moved':
      return `Somebody else changed the same settings meanwhile (${refusal.paths.slice(0, 3).join(', ')}). Nothing was saved; look at theirs and save again.`;
    case 'import_unknown':
      return 'This file is no longer kept for importing. Choose it again.';
    case 'import_unreadable':
      return 'The file cannot be read as it is. Nothing was imported; mend what the list of problems names and choose it again.';
    case 'import_conflicts_open':
      return `${refusal.count} values were changed both in the file and here, and nobody has chosen yet. Nothing was imported; choose for each.`;
    case 'import_changes_nothing':
      return 'The file holds nothing that is not here already. Nothing was changed.';
    case 'import_cancelled':
      return 'The import was stopped. Nothing of it was kept.';
    case 'import_lost':
      return 'The server that did the import was lost over it more than once. Nothing was imported; the file is kept, run it again.';
    case 'files_unavailable':
      return 'The store of pictures and files does not answer. Nothing was changed; try again in a moment, and tell whoever looks after the server.';
    case 'import_running':
      return 'This file is being imported just now. Wait until it is done.';
    case 'import_too_heavy':
      return 'The file takes more time or memory to read than is given to one file. Nothing was imported; split it and import the parts.';
    case 'file_too_large':
      return `The file is larger than the ${Math.floor(refusal.limit / 1024 / 1024)} MB a file may have. Nothing was imported; split it.`;
    case 'design_unreadable':
      return `This is no design file that this Caderno can read${refusal.at === '' ? '' : ` (at ${refusal.at})`}: ${refusal.reason}. Nothing was changed. Save it once more in the project it comes from; a file of a later Caderno is read by one as late.`;
    case 'features_unreadable':
      return FEATURES_UNREADABLE[refusal.wrong];
    case 'design_too_large':
      return `The design file would have ${Math.ceil(refusal.bytes / 1024 / 1024)} MB, and ${Math.floor(refusal.limit / 1024 / 1024)} MB can be brought in at a time. ${refusal.files ? 'Leave the attached files out, or take less of the project along.' : 'Take less of the project along at a time.'}`;
    case 'export_cell_too_long':
      return `${refusal.id} has a text longer than the ${refusal.limit.toLocaleString('en')} characters a cell of a spreadsheet holds. Nothing was written; choose CSV, Markdown or ReqIF.`;
    case 'too_many_instances':
      return `A file of instances holds 50,000 and no more, and ${refusal.id} leads beyond that. Nothing was written; choose fewer cases, or a row a case.`;
    case 'search_unreadable':
      return refusal.text === '' ? 'There is nothing to look for. Write the words that are to be found.' : `The pattern “${refusal.text}” cannot be read. Patterns are regular expressions in the syntax of RE2; nothing was changed.`;
    case 'too_many_made':
      return `One command makes ${refusal.limit.toLocaleString('en')} and no more. Nothing was made; choose fewer.`;
    case 'merge_with_itself':
      return `${refusal.id} cannot be merged with itself or with what stands above it. Nothing was changed.`;
    case 'links_settled_already':
      return 'These links are no longer suspect; somebody has settled them meanwhile. Nothing was changed.';
    case 'tracker_absent':
      return 'No story tracker is connected. A lead connects one in the project’s settings.';
    case 'tracker_failed':
      return `The story tracker ${TRACKER_FAILURE_WORD[refusal.failure]}. Nothing was changed; try again later.`;
    case 'set_up_already':
      return 'Caderno has an administrator already. Sign in.';
    case 'set_up_word_wrong':
      return 'This is not the word that Caderno printed when it was started. Look at its output and try again; a new start prints a new word.';
    case 'demo_closed':
      return 'This server has people with accounts or is on a network, so nobody signs in by a click. Sign in with an account, or have the server started with --demo.';
    case 'demo_person':
      return 'The people of the demo have no passwords and stay in the demo’s projects. Nothing was changed; make an account.';
    case 'demo_alone':
      return 'Accounts with passwords and the demo’s sign-in by a click exclude each other. Nobody was added; start Caderno with --empty for real work, or with --demo to have both.';
    case 'password_wrong':
      return 'This is not your present password. Nothing was changed.';
    case 'password_weak':
      return 'This password is among the first that others would try. Nothing was changed; choose a longer or less usual one.';
    case 'reset_link_ended':
      return 'This link has been used or has ended. Ask an administrator of the server for a new one.';
    case 'folder_unreadable':
      return `This is no folder of a baseline that can be read${refusal.at === '' ? '' : `: ${refusal.at}`} ${refusal.reason}. Nothing was made of it.`;
    case 'folder_newer':
      return `This folder was written by a newer Caderno (its layout ${refusal.version}), and nothing was made of it. Bring it into that one, or have it written again by this one.`;
    case 'folder_changed':
      return folderChangedSentence(refusal);
    case 'folder_too_large':
      return `The baseline has ${refusal.files.toLocaleString('en-GB')} files, and a zip takes at most ${refusal.limit.toLocaleString('en-GB')}. Take a baseline of a part and save that.`;
    case 'invitation_ended':
      return 'This invitation was taken up, withdrawn, or has ended. Ask whoever invited you for a new one.';
    case 'offer_not_there':
      return 'What is offered cannot be put there any more: the text it was for is gone, or what is offered does not fit there. Nothing is changed; write it by hand.';
    case 'read_link_ended':
      return 'This link opens nothing any more: it was ended, has run out, or what it showed was withdrawn. Ask whoever gave it to you.';
    case 'address_link_ended':
      return 'This link has been used or has ended. Your e-mail address is as it was; ask for the new one again on your account.';
    case 'mail_off':
      return 'This server sends no mail. Nothing was sent; whoever runs the server names a mail server when it is started.';
    case 'mail_failed':
      return `The mail was not sent. The mail server said: “${refusal.answer}”.`;
    case 'mail_unknown':
      return 'There is no such mail of yours that could be sent or taken back. Nothing was changed.';
    case 'mail_outside':
      return 'As a reader you send mail to people of the project only. Nothing was sent.';
    case 'too_many_mails':
      return `You sent ${refusal.limit} mails within a day, and more are not sent for now. Nothing of this one was sent.`;
    case 'account_unknown':
      return `There is no account of ${refusal.who} here. Nothing was changed.`;
    case 'member_already':
      return `${refusal.who} belongs to this project already. Nothing was changed.`;
    case 'last_administrator':
      return 'Nobody could administrate this any more. Nothing was changed; make somebody else an administrator first.';
    case 'token_unknown':
      return 'There is no such access token of yours any more. Nothing was changed.';
    case 'token_not_enough':
      return tokenSentence(refusal.needed);
    case 'tokens_too_many':
      return `Nobody has more than ${refusal.limit} access tokens. Nothing was changed; withdraw one that is not used any more.`;
    case 'session_unknown':
      return 'This session has ended already.';
    case 'constant_unknown':
      return 'The project has no such secret constant with a value.';
    case 'person_exists':
      return `There is an account with the address ${refusal.email} already. Add it to the project as it is.`;
    case 'project_exists':
      return `There is a project with the key ${refusal.project} already. Choose another key.`;
    case 'database_unavailable':
      return 'The database does not answer just now. What you type is kept here and sent as soon as it does.';
    case 'disk_full':
      return 'The disk of the server is full. What you type is kept here and saved as soon as there is room; whoever looks after the server has to make some.';
    case 'server_stopping':
      return 'The server is being stopped or restarted. What you type is kept here and sent as soon as it is back.';
    case 'host_unknown':
      return `This server is not known as ‘${refusal.host}’. Whoever started it can add the name: CADERNO_HOSTS.`;
    case 'command_id_taken':
      return 'This request carries the id of another one and was not carried out. Nothing was changed; try again.';
    case 'too_much_at_once':
      return `You have too much under way at once. Wait ${refusal.seconds} seconds and try again; nothing was changed.`;
    case 'project_busy':
      return 'Something long is being carried out in this project, as an import. Nothing was changed; what you type is kept here and sent as soon as it is done.';
    case 'draft_older':
      return 'A text that you typed later, in another window perhaps, is kept already. This one is still here; save it as a version if it is the one you want.';
    case 'too_many_streams':
      return `More than ${refusal.limit} pages are open at once. Close some and reload.`;
    case 'computation_too_heavy':
      return 'This takes more time or memory than is given to one question. Nothing was changed; make the models or patterns it has to look through smaller.';
    case 'fault':
      return `Something went wrong on our side (${refusal.reference}). What you typed is kept; try again.`;
  }
}

const FEATURES_UNREADABLE: Record<Extract<Refusal, { code: 'features_unreadable' }>['wrong'], string> = {
  none: 'There is no feature in it: a feature is a text file whose name ends in .feature, by itself or in a zip. Nothing was changed.',
  damaged: 'The zip is damaged and cannot be unpacked. Nothing was changed; pack the folder once more.',
  too_many: 'There are more than 5,000 features in it, or more than 100 MB when it is unpacked. Nothing was changed; bring the folders one by one.',
};

function tokenSentence(needed: TokenScope | null): string {
  if (needed === null) return 'This is not done with an access token. Nothing was changed; sign in with a browser.';
  return `The access token does not allow to ${needed} in this project. Nothing was changed; make one that does, on the page of your account.`;
}

function folderChangedSentence({ changed, missing, unknown, first }: Extract<Refusal, { code: 'folder_changed' }>): string {
  const parts = [...(changed > 0 ? [`${changed} changed`] : []), ...(missing > 0 ? [`${missing} missing`] : []), ...(unknown > 0 ? [`${unknown} added`] : [])];
  return `Files of this folder are not as Caderno wrote them: ${parts.join(', ')} (${first.join(', ')}). Nothing was made of it yet.`;
}
