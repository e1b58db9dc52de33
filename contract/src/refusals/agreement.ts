import type { ArtefactId, ArtefactState } from '@caderno/core/artefacts';
import type { Refusals } from './refusals.ts';

/** What is refused of remarks, reviews, baselines and hand-offs. */
export type AgreementRefusal =
  | { readonly code: 'remark_unknown' }
  | { readonly code: 'remark_not_yours' }
  | { readonly code: 'too_many_remarks'; readonly limit: number }
  | { readonly code: 'baseline_unknown' }
  | { readonly code: 'moment_is_past' }
  | { readonly code: 'moment_unknown' }
  | { readonly code: 'baseline_of_nothing' }
  | { readonly code: 'undo_of_baseline' }
  | { readonly code: 'review_unknown' }
  | { readonly code: 'review_ended' }
  | { readonly code: 'review_of_nothing' }
  | { readonly code: 'review_not_asked' }
  | { readonly code: 'review_moved'; readonly id: ArtefactId; readonly version: number }
  | { readonly code: 'reviewers_too_few'; readonly id: ArtefactId; readonly needed: number | 'all'; readonly authors: boolean }
  | { readonly code: 'state_by_review'; readonly state: ArtefactState }
  | { readonly code: 'undo_of_review' }
  | { readonly code: 'hand_off_unknown' }
  | { readonly code: 'hand_off_of_nothing' }
  /** More instances than one may come to. */
  | { readonly code: 'hand_off_too_large'; readonly instances: number; readonly limit: number }
  /** More of it than one file of a form may hold. */
  | { readonly code: 'specification_too_long'; readonly count: number; readonly limit: number }
  | { readonly code: 'hand_off_part_empty' }
  | { readonly code: 'hand_off_too_long'; readonly limit: number }
  | { readonly code: 'returned_unreadable' }
  | { readonly code: 'returned_too_long'; readonly limit: number }
  | { readonly code: 'configuration_unknown' }
  | { readonly code: 'offer_gone' }
  | { readonly code: 'offer_unfit' };

/** Their statuses, and what is said of each. */
export const AGREEMENT_REFUSALS: Refusals<AgreementRefusal> = {
  remark_unknown: { status: 404, sentence: () => 'This remark is no longer there. Nothing was changed; what you wrote is still in its field.' },
  remark_not_yours: { status: 403, sentence: () => 'Only who wrote a remark can say it otherwise, and not once it was taken back. Nothing was changed; you can answer it.' },
  too_many_remarks: { status: 422, sentence: (refusal) => `${refusal.limit} remarks are the most for one artefact. Nothing was added.` },
  baseline_unknown: { status: 404, sentence: () => 'There is no such baseline in this project.' },
  moment_is_past: { status: 409, sentence: () => 'This is the project as it was: nothing can be changed here. Go to the project of now to work on it.' },
  moment_unknown: { status: 404, sentence: () => 'The journal of this project has no such moment. Choose an entry of it.' },
  baseline_of_nothing: { status: 422, sentence: () => 'None of these is there any more: no baseline was taken.' },
  undo_of_baseline: { status: 409, sentence: () => 'A baseline stays: it is not undone. Nothing was changed.' },
  review_unknown: { status: 404, sentence: () => 'There is no such review in this project.' },
  review_ended: { status: 409, sentence: () => 'This review has ended. What was agreed in it stays agreed; ask for a new review for anything else.' },
  review_of_nothing: { status: 422, sentence: () => 'None of these can be reviewed now: they are agreed as they are, in another review, withdrawn, or as they were when somebody objected. Nothing was changed.' },
  review_not_asked: { status: 403, sentence: () => 'This review does not ask you. Nothing was changed; whoever asked for it can add you.' },
  review_moved: { status: 409, sentence: (refusal) => `${refusal.id} is asked for as v${refusal.version} by now. Your answer was not taken; look at what changed and answer again.` },
  reviewers_too_few: { status: 422, sentence: (refusal) => `Too few of those asked may agree to ${refusal.id}: ${refusal.needed === 'all' ? 'everybody who is asked' : refusal.needed === 1 ? 'somebody' : `${refusal.needed} people`} must agree${refusal.authors ? '' : ', and not those who wrote it'}. Nothing was changed; ask more people${refusal.authors ? '' : ', or let people agree to their own work in the project’s settings'}.` },
  state_by_review: { status: 409, sentence: (refusal) => `In this project ${refusal.state === 'inReview' ? 'something is in review when a review asks for it' : 'something is agreed by a review only'}. Nothing was changed; ask for a review.` },
  undo_of_review: { status: 409, sentence: () => 'What a review did is not undone from the journal. Nothing was changed; say otherwise in the review, or set the state.' },
  hand_off_unknown: { status: 404, sentence: () => 'There is no such hand-off in this project.' },
  hand_off_of_nothing: { status: 422, sentence: () => 'Nothing is left to be handed off: no hand-off was made. Choose a suite that has members, or leave fewer of them out.' },
  hand_off_too_large: { status: 422, sentence: (refusal) => `This would come to ${refusal.instances} instances, and ${refusal.limit} are the most for one hand-off. Nothing was made; choose fewer configurations or members, or let cases run fewer rows.` },
  specification_too_long: { status: 422, sentence: (refusal) => `${refusal.count} artefacts are too many for one document: it takes ${refusal.limit}. Choose a module, a requirement or a suite.` },
  hand_off_part_empty: { status: 422, sentence: () => 'Nothing of this hand-off is given to them to be executed by hand. No mail was written.' },
  hand_off_too_long: { status: 422, sentence: (refusal) => `More than ${refusal.limit} steps are too many for one page. No file was written; take the part of each person, or a workbook.` },
  returned_unreadable: { status: 422, sentence: () => 'This is no file of a hand-off: a workbook or CSV of one has columns for the hand-off, the instance and the step; a page saves its notes as JSON. Nothing was taken; choose what came back.' },
  returned_too_long: { status: 422, sentence: (refusal) => `It has more than ${refusal.limit} rows. Nothing was taken; bring back the rows with remarks only, or each person’s part.` },
  configuration_unknown: { status: 422, sentence: () => 'One of the configurations is not in the project’s settings any more. Nothing was made; choose among those that are there.' },
  offer_gone: { status: 409, sentence: () => 'The text that this was offered for is gone. Nothing is changed; answer the remark, or write it by hand where it belongs now.' },
  offer_unfit: { status: 422, sentence: () => 'What is offered does not fit there: the whole would be too long, or a title empty. Nothing is changed; write it by hand, shorter.' },
};
