import { parseArgs } from 'node:util';
import { CadernoServer, type Connection } from './cadernoServer.ts';
import { COVERAGE_OPTIONS, coverage } from './coverageCommand.ts';
import { Failure } from './failure.ts';
import { REPORT_OPTIONS, report } from './reportCommand.ts';
import { EXIT, check, pull, push, type ExitCode, type Print } from './featureCommands.ts';

const USAGE = `caderno features push FOLDER    bring the features of a folder into Caderno
caderno features pull FOLDER    bring the features of Caderno into a folder
caderno features check FOLDER   tell whether both have the same; exit code 1 if not
caderno coverage                tell how much of what is to be shown is shown; exit code 1 if less than asked for
caderno report FILE             write the report for those who decide, as .html or .md

  --server ADDRESS     or the variable CADERNO_SERVER, as http://127.0.0.1:3210
  --project KEY        or CADERNO_PROJECT: what stands in the address of the project
  --take code|caderno  push: whose side counts where both changed the same
  --dry-run            push: say what would be done, and do nothing
  --force              pull: also over what was changed in the code
  --risk high|medium|low, --module NAME, --suite U-1
                       coverage: of this only
  --shown 80           coverage: so many percent of the items are to be shown
  --linked 95          coverage: so many shown or at least linked
  --analysed           coverage: no requirement without a condition
  --badge FILE         coverage: write the share as a picture (SVG)
  --since B-2          report: held against a baseline
  --note TEXT          report: what is said first

The access token stands in CADERNO_TOKEN. Make one on the page of your account.
Exit codes: 0 well, 1 code and Caderno differ, less is shown than asked for, or somebody has to decide, 2 it could not be done.`;

/** What the program is given by whoever starts it. */
export interface Surroundings {
  readonly env: Readonly<Record<string, string | undefined>>;
  readonly print: Print;
  readonly complain: Print;
}

const OPTIONS = { server: { type: 'string' }, project: { type: 'string' }, take: { type: 'string' }, 'dry-run': { type: 'boolean', default: false }, force: { type: 'boolean', default: false }, ...COVERAGE_OPTIONS, ...REPORT_OPTIONS, help: { type: 'boolean', short: 'h', default: false } } as const;

/** Carries out one command. */
export async function run(args: readonly string[], { env, print, complain }: Surroundings): Promise<ExitCode> {
  try {
    const { values: options, positionals } = read(args);
    if (options.help || positionals.length === 0) {
      print(USAGE);
      return EXIT.well;
    }
    const [area, command, folder, ...more] = positionals;
    if (area === 'coverage' && command === undefined) return await coverage(new CadernoServer(connectionOf(options, env)), options, print);
    if (area === 'report' && command !== undefined && folder === undefined) return await report(new CadernoServer(connectionOf(options, env)), command, options, print);
    if (area !== 'features' || folder === undefined || more.length > 0) throw new Failure(`Say what to do, and with which folder.\n\n${USAGE}`);
    if (options.take !== undefined && options.take !== 'code' && options.take !== 'caderno') throw new Failure(`--take is code or caderno, not ${options.take}.`);
    const server = new CadernoServer(connectionOf(options, env));
    switch (command) {
      case 'push':
        return await push(server, folder, { take: options.take ?? null, dryRun: options['dry-run'] }, print);
      case 'pull':
        return await pull(server, folder, { force: options.force }, print);
      case 'check':
        return await check(server, folder, print);
      default:
        throw new Failure(`There is no command ${command ?? ''}.\n\n${USAGE}`);
    }
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    complain(error.message);
    return EXIT.failed;
  }
}

function read(args: readonly string[]) {
  try {
    return parseArgs({ args: [...args], options: OPTIONS, allowPositionals: true });
  } catch (cause) {
    throw new Failure(`${cause instanceof Error ? cause.message : String(cause)}\n\n${USAGE}`, { cause });
  }
}

function connectionOf(given: { readonly server?: string | undefined; readonly project?: string | undefined }, env: Surroundings['env']): Connection {
  const server = given.server ?? env.CADERNO_SERVER;
  const project = given.project ?? env.CADERNO_PROJECT;
  const token = env.CADERNO_TOKEN;
  if (server === undefined || !/^https?:\/\/\S+$/.test(server)) throw new Failure('Say which server: --server http://… or the variable CADERNO_SERVER.');
  if (project === undefined || project === '') throw new Failure('Say which project: --project KEY or the variable CADERNO_PROJECT.');
  if (token === undefined || token === '') throw new Failure('The variable CADERNO_TOKEN is empty: it takes an access token, which you make on the page of your account in Caderno.');
  return { server, project, token };
}
