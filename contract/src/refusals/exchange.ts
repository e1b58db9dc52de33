import type { ArtefactId } from '@caderno/core/artefacts';
import type { Refusals } from './refusals.ts';

/** What is refused of files that come in and go out. */
export type ExchangeRefusal =
  | { readonly code: 'import_unknown' }
  | { readonly code: 'import_unreadable'; readonly errors: number }
  | { readonly code: 'import_conflicts_open'; readonly count: number }
  | { readonly code: 'import_changes_nothing' }
  | { readonly code: 'import_cancelled' }
  | { readonly code: 'import_running' }
  | { readonly code: 'import_lost' }
  | { readonly code: 'import_too_heavy' }
  | { readonly code: 'file_too_large'; readonly limit: number }
  /** `at`: where in it; empty: as a whole. */
  | { readonly code: 'design_unreadable'; readonly at: string; readonly reason: string }
  | { readonly code: 'features_unreadable'; readonly wrong: 'none' | 'damaged' | 'too_many' }
  | { readonly code: 'design_too_large'; readonly bytes: number; readonly limit: number; readonly files: boolean }
  | { readonly code: 'export_cell_too_long'; readonly id: ArtefactId; readonly limit: number }
  | { readonly code: 'too_many_instances'; readonly id: ArtefactId }
  | { readonly code: 'too_many_files_beside'; readonly count: number; readonly limit: number }
  /** `at`: the path in the folder; '' is the folder itself. */
  | { readonly code: 'folder_unreadable'; readonly at: string; readonly reason: string }
  | { readonly code: 'folder_newer'; readonly version: number }
  | { readonly code: 'folder_changed'; readonly changed: number; readonly missing: number; readonly unknown: number; readonly first: readonly string[] }
  | { readonly code: 'folder_too_large'; readonly files: number; readonly limit: number };

/** Their statuses, and what is said of each. */
export const EXCHANGE_REFUSALS: Refusals<ExchangeRefusal> = {
  import_unknown: { status: 404, sentence: () => 'This file is no longer kept for importing. Choose it again.' },
  import_unreadable: { status: 422, sentence: () => 'The file cannot be read as it is. Nothing was imported; mend what the list of problems names and choose it again.' },
  import_conflicts_open: { status: 422, sentence: (refusal) => `${refusal.count} values were changed both in the file and here, and nobody has chosen yet. Nothing was imported; choose for each.` },
  import_changes_nothing: { status: 422, sentence: () => 'The file holds nothing that is not here already. Nothing was changed.' },
  import_cancelled: { status: 409, sentence: () => 'The import was stopped. Nothing of it was kept.' },
  import_running: { status: 409, sentence: () => 'This file is being imported just now. Wait until it is done.' },
  import_lost: { status: 409, sentence: () => 'The server that did the import was lost over it more than once. Nothing was imported; the file is kept, run it again.' },
  import_too_heavy: { status: 422, sentence: () => 'The file takes more time or memory to read than is given to one file. Nothing was imported; split it and import the parts.' },
  file_too_large: { status: 413, sentence: (refusal) => `The file is larger than the ${Math.floor(refusal.limit / 1024 / 1024)} MB a file may have. Nothing was imported; split it.` },
  design_unreadable: { status: 422, sentence: (refusal) => `This is no design file that this Caderno can read${refusal.at === '' ? '' : ` (at ${refusal.at})`}: ${refusal.reason}. Nothing was changed. Save it once more in the project it comes from; a file of a later Caderno is read by one as late.` },
  features_unreadable: { status: 422, sentence: (refusal) => FEATURES_UNREADABLE[refusal.wrong] },
  design_too_large: { status: 422, sentence: (refusal) => `The design file would have ${Math.ceil(refusal.bytes / 1024 / 1024)} MB, and ${Math.floor(refusal.limit / 1024 / 1024)} MB can be brought in at a time. ${refusal.files ? 'Leave the attached files out, or take less of the project along.' : 'Take less of the project along at a time.'}` },
  export_cell_too_long: { status: 422, sentence: (refusal) => `${refusal.id} has a text longer than the ${refusal.limit.toLocaleString('en')} characters a cell of a spreadsheet holds. Nothing was written; choose CSV, Markdown or ReqIF.` },
  too_many_instances: { status: 422, sentence: (refusal) => `A file of instances holds 50,000 and no more, and ${refusal.id} leads beyond that. Nothing was written; choose fewer cases, or a row a case.` },
  too_many_files_beside: { status: 422, sentence: (refusal) => `${refusal.count.toLocaleString('en-GB')} files are attached to these cases, and a zip takes at most ${refusal.limit.toLocaleString('en-GB')}. Nothing was written; choose fewer cases, or leave the files out.` },
  folder_unreadable: { status: 422, sentence: (refusal) => `This is no folder of a baseline that can be read${refusal.at === '' ? '' : `: ${refusal.at}`} ${refusal.reason}. Nothing was made of it.` },
  folder_newer: { status: 422, sentence: (refusal) => `This folder was written by a newer Caderno (its layout ${refusal.version}), and nothing was made of it. Bring it into that one, or have it written again by this one.` },
  folder_changed: { status: 409, sentence: (refusal) => folderChangedSentence(refusal) },
  folder_too_large: { status: 413, sentence: (refusal) => `The baseline has ${refusal.files.toLocaleString('en-GB')} files, and a zip takes at most ${refusal.limit.toLocaleString('en-GB')}. Take a baseline of a part and save that.` },
};

const FEATURES_UNREADABLE: Record<Extract<ExchangeRefusal, { code: 'features_unreadable' }>['wrong'], string> = {
  none: 'There is no feature in it: a feature is a text file whose name ends in .feature, by itself or in a zip. Nothing was changed.',
  damaged: 'The zip is damaged and cannot be unpacked. Nothing was changed; pack the folder once more.',
  too_many: 'There are more than 5,000 features in it, or more than 100 MB when it is unpacked. Nothing was changed; bring the folders one by one.',
};

function folderChangedSentence({ changed, missing, unknown, first }: Extract<ExchangeRefusal, { code: 'folder_changed' }>): string {
  const parts = [...(changed > 0 ? [`${changed} changed`] : []), ...(missing > 0 ? [`${missing} missing`] : []), ...(unknown > 0 ? [`${unknown} added`] : [])];
  return `Files of this folder are not as Caderno wrote them: ${parts.join(', ')} (${first.join(', ')}). Nothing was made of it yet.`;
}
