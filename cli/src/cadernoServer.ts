import { randomUUID } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { API_ROOT, COMMAND_ID_HEADER, api, type AnyEndpoint, type DesignReport, type FeaturesDraft, type TrendPoint } from '@caderno/contract';
import { unzipSync, zipSync } from 'fflate';
import { z } from 'zod';
import { Failure } from './failure.ts';
import type { FeatureFiles } from './featureFolder.ts';

/** Where the project is, and what opens it. */
export interface Connection {
  readonly server: string;
  readonly project: string;
  readonly token: string;
}

/** Problem details of the server: what it says, in a sentence, and why. */
const problemSchema = z.object({ code: z.string(), detail: z.string() });

/** The server said no. */
export class Refused extends Failure {
  readonly code: string;
  constructor({ code, detail }: z.infer<typeof problemSchema>) {
    super(detail);
    this.code = code;
  }
}

type Called = 'readFigures' | 'readReport' | 'exportFeatures' | 'uploadFeatures' | 'runFeatures' | 'cancelImport' | 'rememberFeatures';

/** Which side counts where a feature was changed both here and in the code. */
export type TakenSide = 'mine' | 'theirs';

/** How often, and after how many milliseconds, what did not get through is sent again: the same command is carried out once. */
const AGAIN_AFTER_MS = [500, 2_000, 5_000];

/** Zips know no time before it. */
const ZIP_TIME = '1980-01-01T12:00:00Z';

/** One project on a server of Caderno. */
export class CadernoServer {
  readonly #connection: Connection;

  constructor(connection: Connection) {
    this.#connection = connection;
  }

  /** All features of the project as files. */
  async features(): Promise<FeatureFiles> {
    const response = await this.#call('exportFeatures', {}, JSON.stringify({ of: { kind: 'feature', query: '' }, form: 'zip' }));
    return new Map(Object.entries(unzipSync(new Uint8Array(await response.arrayBuffer()))));
  }

  /** What these files would do there. Whoever does not run it cancels it. */
  async bring(files: FeatureFiles): Promise<FeaturesDraft> {
    const response = await this.#call('uploadFeatures', {}, zipped(files), '?name=features.zip');
    return api.uploadFeatures.response.parse(await response.json());
  }

  /** Does it, as one entry of the journal; all of it or nothing. */
  async run(draft: FeaturesDraft, choices: Readonly<Record<string, TakenSide>>): Promise<void> {
    await this.#call('runFeatures', { import: draft.id }, JSON.stringify({ choices }));
  }

  async cancel(draft: FeaturesDraft): Promise<void> {
    await this.#call('cancelImport', { import: draft.id }, null);
  }

  /** Says that these files stand in the code; those that stand so there too are what later ones are told apart from. */
  async remember(files: FeatureFiles): Promise<void> {
    await this.#call('rememberFeatures', {}, zipped(files));
  }

  /** What the project comes to now. */
  async figures(): Promise<TrendPoint> {
    const response = await this.#call('readFigures', {}, null);
    return api.readFigures.response.parse(await response.json());
  }

  /** What those who decide are told, held against the baseline of a number. */
  async report(since: string | null): Promise<DesignReport> {
    const response = await this.#call('readReport', {}, null, since === null ? '' : `?since=${since}`);
    return api.readReport.response.parse(await response.json());
  }

  async #call(name: Called, params: Readonly<Record<string, string>>, body: string | Uint8Array<ArrayBuffer> | null, query = ''): Promise<Response> {
    const endpoint: AnyEndpoint = api[name];
    const values: Readonly<Record<string, string>> = { ...params, project: this.#connection.project };
    const path = endpoint.path.replaceAll(/:(\w+)/g, (_, part: string) => encodeURIComponent(values[part] ?? ''));
    const commandId = randomUUID();
    const headers = { authorization: `Bearer ${this.#connection.token}`, [COMMAND_ID_HEADER]: commandId, ...(body === null ? {} : { 'content-type': typeof body === 'string' ? 'application/json' : 'application/octet-stream' }) };
    const response = await this.#reach(`${this.#connection.server.replace(/\/+$/, '')}${API_ROOT}${path}${query}`, { method: endpoint.method, headers, body });
    if (response.ok) return response;
    throw await refusalIn(response);
  }

  async #reach(address: string, init: RequestInit): Promise<Response> {
    for (const [turn, pause] of [...AGAIN_AFTER_MS, null].entries()) {
      try {
        return await fetch(address, init);
      } catch (cause) {
        if (pause === null) throw new Failure(`${this.#connection.server} does not answer, asked ${turn + 1} times. Run the command again: what was done already is not done twice.`, { cause });
        await sleep(pause);
      }
    }
    throw new Error('The last turn answers or throws');
  }
}

async function refusalIn(response: Response): Promise<Failure> {
  const problem = problemSchema.safeParse(await response.json().catch(() => null));
  if (problem.data?.code === 'not_signed_in') return new Failure('The access token opens nothing here: it was withdrawn, has ended, or is none. Make another one on the page of your account.');
  return problem.success ? new Refused(problem.data) : new Failure(`What answers at this address is no server of Caderno (status ${response.status}).`);
}

function zipped(files: FeatureFiles): Uint8Array<ArrayBuffer> {
  return new Uint8Array(zipSync(Object.fromEntries(files), { mtime: ZIP_TIME }));
}
