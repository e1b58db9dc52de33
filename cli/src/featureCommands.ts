import { featureProblemSentence, type FeaturesDraft } from '@caderno/contract';
import { Refused, type CadernoServer, type TakenSide } from './cadernoServer.ts';
import { Failure } from './failure.ts';
import { isSame, readFeatureFolder, writeFeatures, type FeatureFiles } from './featureFolder.ts';

/** What a pipeline learns of a command: all is well; code and Caderno differ, or somebody has to decide; it could not be done. */
export const EXIT = { well: 0, differs: 1, failed: 2 } as const;
export type ExitCode = (typeof EXIT)[keyof typeof EXIT];

/** Prints a line. */
export type Print = (line: string) => void;

export interface PushOptions {
  /** Whose side counts where both changed the same; null: nothing is done then. */
  readonly take: 'code' | 'caderno' | null;
  /** Says what would be done, and does nothing. */
  readonly dryRun: boolean;
}

const SIDE: Record<'code' | 'caderno', TakenSide> = { code: 'theirs', caderno: 'mine' };

/** Brings the features of a folder into the project: new ones, and what changed in those that came from there. */
export async function push(server: CadernoServer, folder: string, { take, dryRun }: PushOptions, print: Print): Promise<ExitCode> {
  const files = await readFeatureFolder(folder);
  if (files.size === 0) throw new Failure(`No file below ${folder} ends in .feature. Nothing was done.`);
  const draft = await server.bring(files);
  tellDraft(draft, print);
  const { added, changed } = draft.counts;
  const undecided = draft.conflicts > 0 && take === null;
  if (undecided) tellConflicts(draft, print);
  if (undecided || dryRun || added + changed === 0) {
    await server.cancel(draft);
    if (!undecided && !dryRun) await server.remember(files);
    print(undecided ? 'Nothing was changed. Decide with --take code or --take caderno.' : dryRun ? 'Nothing was changed: this was a dry run.' : 'Caderno has it all already.');
    return undecided ? EXIT.differs : EXIT.well;
  }
  await server.run(draft, take === null ? {} : Object.fromEntries(draft.changed.flatMap((c) => (c.both.length > 0 ? [[c.id, SIDE[take]]] : []))));
  print(`${countOf(added, 'feature')} added, ${changed.toLocaleString('en')} changed, as one entry of the journal.`);
  const here = await server.features();
  const apart = [...files].filter(([path, bytes]) => here.has(path) && !isSame(here.get(path), bytes)).map(([path]) => path);
  if (apart.length > 0) print(`Caderno has changes of its own in ${apart.join(', ')}: pull them.`);
  return EXIT.well;
}

/** Brings the features of the project into a folder. What was changed there and is not in the project yet stays as it is, unless it is forced. */
export async function pull(server: CadernoServer, folder: string, { force }: { readonly force: boolean }, print: Print): Promise<ExitCode> {
  const [code, caderno] = [await readFeatureFolder(folder), await server.features()];
  const differing = [...caderno.keys()].filter((path) => code.has(path) && !isSame(code.get(path), caderno.get(path)));
  const kept = force || differing.length === 0 ? new Set<string>() : await changedInCode(server, code, differing, print);
  const written = new Map([...caderno].filter(([path, bytes]) => !kept.has(path) && !isSame(code.get(path), bytes)));
  await writeFeatures(folder, written);
  for (const path of written.keys()) print(`${code.has(path) ? 'changed' : 'new    '} ${path}`);
  for (const path of [...code.keys()].filter((p) => !caderno.has(p))) print(`left    ${path}: it is not in Caderno`);
  for (const path of kept) print(`left    ${path}: it has changes that are not in Caderno; push them first, or pull with --force`);
  print(`${countOf(written.size, 'file')} written.`);
  await remembering(server, await readFeatureFolder(folder), print);
  return kept.size === 0 ? EXIT.well : EXIT.differs;
}

/** Which of the files were changed in the code since it was pushed or pulled; all of them where nobody can tell. */
async function changedInCode(server: CadernoServer, code: FeatureFiles, differing: readonly string[], print: Print): Promise<ReadonlySet<string>> {
  try {
    const draft = await server.bring(code);
    await server.cancel(draft);
    if (draft.counts.changed > draft.changed.length) return new Set(differing);
    const changed = new Set(draft.changed.map((c) => c.path));
    return new Set(differing.filter((path) => changed.has(path)));
  } catch (error) {
    if (!(error instanceof Refused) || error.code !== 'token_not_enough') throw error;
    print('The token only reads, so that nobody can tell whose changes these are.');
    return new Set(differing);
  }
}

async function remembering(server: CadernoServer, files: FeatureFiles, print: Print): Promise<void> {
  if (files.size === 0) return;
  try {
    await server.remember(files);
  } catch (error) {
    if (!(error instanceof Refused) || (error.code !== 'token_not_enough' && error.code !== 'role_too_low')) throw error;
    print('The token only reads: Caderno was not told what stands in the code now.');
  }
}

/** Tells whether the folder and the project have the same features, and changes nothing. */
export async function check(server: CadernoServer, folder: string, print: Print): Promise<ExitCode> {
  const [code, caderno] = [await readFeatureFolder(folder), await server.features()];
  const onlyCode = [...code.keys()].filter((path) => !caderno.has(path));
  const onlyCaderno = [...caderno.keys()].filter((path) => !code.has(path)).toSorted();
  const differing = [...code.keys()].filter((path) => caderno.has(path) && !isSame(code.get(path), caderno.get(path)));
  for (const path of onlyCode) print(`only in the code  ${path}`);
  for (const path of onlyCaderno) print(`only in Caderno   ${path}`);
  for (const path of differing) print(`not the same      ${path}`);
  const count = onlyCode.length + onlyCaderno.length + differing.length;
  print(count === 0 ? `${countOf(code.size, 'feature')}: code and Caderno have the same.` : `Code and Caderno differ in ${countOf(count, 'feature')}.`);
  return count === 0 ? EXIT.well : EXIT.differs;
}

function tellDraft({ counts, problems, left, missing }: FeaturesDraft, print: Print): void {
  for (const problem of problems) print(`${problem.path}:${problem.line}:${problem.column}: ${featureProblemSentence(problem)}`);
  if (counts.problems > problems.length) print(`… and ${(counts.problems - problems.length).toLocaleString('en')} more lines that are no good Gherkin.`);
  for (const { path, reason } of left) print(`${path} does not come in: ${LEFT_WORDS[reason]}.`);
  print(`${countOf(counts.added, 'new feature')}, ${counts.changed.toLocaleString('en')} changed, ${counts.same.toLocaleString('en')} the same.`);
  if (counts.missing > 0) print(`${countOf(counts.missing, 'feature')} of Caderno ${counts.missing === 1 ? 'is' : 'are'} not in the folder and ${counts.missing === 1 ? 'stays' : 'stay'}: ${missing.map((m) => m.path).join(', ')}`);
}

const LEFT_WORDS: Record<FeaturesDraft['left'][number]['reason'], string> = { too_large: 'it is too large', not_text: 'it is no text in UTF-8', bad_path: 'its path cannot be one here', twice: 'another file has its path' };

function tellConflicts({ changed, conflicts }: FeaturesDraft, print: Print): void {
  print(`${countOf(conflicts, 'feature')} changed both in the code and in Caderno:`);
  for (const { path, id, both } of changed.filter((c) => c.both.length > 0)) {
    print(`  ${path} (${id})`);
    for (const place of both) {
      print(`    code:    ${place.theirs ?? '(taken out)'}`);
      print(`    Caderno: ${place.mine ?? '(taken out)'}`);
    }
  }
}

function countOf(count: number, one: string): string {
  return `${count.toLocaleString('en')} ${one}${count === 1 ? '' : 's'}`;
}
