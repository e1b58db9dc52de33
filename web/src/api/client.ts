import type { Attachment } from '@caderno/core/attachments';
import { API_ROOT, COMMAND_ID_HEADER, STATUS_OF_REFUSAL, api, type AnyEndpoint, type BodyOf, type Operation, type ParamsOf, type QueryInputOf, type Refusal, type ResponseOf } from '@caderno/contract';

/** The server said no, and why. */
export class RefusedCall extends Error {
  readonly refusal: Refusal;
  constructor(refusal: Refusal) {
    super(refusal.code);
    this.refusal = refusal;
  }
}

/** The server could not be reached at all. */
export class Unreachable extends Error {}

export interface CallOptions {
  readonly ifMatch?: number;
  /** Makes a retry harmless: the same id is carried out once. */
  readonly commandId?: string;
  readonly signal?: AbortSignal;
  /** For what must leave the page while it closes. */
  readonly keepalive?: boolean;
}

export interface CallInput<N extends Operation> {
  readonly params?: ParamsOf<N>;
  readonly query?: QueryInputOf<N>;
  readonly body?: BodyOf<N>;
}

/** Calls an operation of the contract; the answer is checked by the contract's schema. */
export async function call<N extends Operation>(name: N, input: CallInput<N> = {}, options: CallOptions = {}): Promise<ResponseOf<N>> {
  const endpoint: AnyEndpoint = api[name];
  const response = await send(endpoint, input, options);
  if (!response.ok) throw await failureOf(response);
  return endpoint.response.parse(await response.json()) as ResponseOf<N>;
}

/** Calls an operation that answers a file, and has the browser save it. */
export async function download(name: 'exportBasis' | 'exportComparison' | 'exportQuestions' | 'exportCases' | 'exportDesign' | 'exportFeatures' | 'exportFolder' | 'exportHandOff', input: CallInput<typeof name>): Promise<void> {
  const response = await send(api[name], input, {});
  if (!response.ok) throw await failureOf(response);
  const link = document.createElement('a');
  link.href = URL.createObjectURL(await response.blob());
  link.download = decodeURIComponent(/filename\*=UTF-8''([^;]+)/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? name);
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

async function send<N extends Operation>(endpoint: AnyEndpoint, input: CallInput<N>, options: CallOptions): Promise<Response> {
  const headers = new Headers();
  if (input.body !== undefined) headers.set('content-type', input.body instanceof Uint8Array ? 'application/octet-stream' : 'application/json');
  if (options.ifMatch !== undefined) headers.set('if-match', `"${options.ifMatch}"`);
  if (options.commandId !== undefined) headers.set(COMMAND_ID_HEADER, options.commandId);
  try {
    return await fetch(addressOf(endpoint, input), {
      method: endpoint.method,
      headers,
      body: input.body === undefined ? null : input.body instanceof Uint8Array ? new Blob([Uint8Array.from(input.body)]) : JSON.stringify(input.body),
      signal: options.signal ?? null,
      keepalive: options.keepalive ?? false,
    });
  } catch (cause) {
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause;
    throw new Unreachable('The server does not answer', { cause });
  }
}

/** Where an operation is asked. */
export function addressOf<N extends Operation>(endpoint: AnyEndpoint, { params, query }: CallInput<N>): string {
  const values = new Map(Object.entries((params ?? {}) as Record<string, unknown>));
  const path = endpoint.path.replaceAll(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(values.get(name))));
  const search = new URLSearchParams();
  for (const [name, value] of Object.entries((query ?? {}) as Record<string, unknown>)) if (value !== undefined) search.set(name, String(value));
  const text = search.toString();
  return `${API_ROOT}${path}${text === '' ? '' : `?${text}`}`;
}

/** What is no problem of ours was said by something in between, which found no server. */
export async function failureOf(response: Response): Promise<Error> {
  if (!(response.headers.get('content-type') ?? '').includes('json')) return new Unreachable(`Something before the server answers with ${response.status}`);
  return new RefusedCall(readRefusal(await response.json()));
}

function readRefusal(data: unknown): Refusal {
  const code = typeof data === 'object' && data !== null && 'code' in data ? String(data.code) : '';
  return code in STATUS_OF_REFUSAL ? (data as Refusal) : { code: 'fault', reference: 'unreadable answer' };
}

/** Where an attached file is to be had, under its name. */
export function attachmentAddress(project: string, { id, name }: Pick<Attachment, 'id' | 'name'>): string {
  return addressOf(api.readAttachment, { params: { project, attachment: id }, query: { name } });
}
