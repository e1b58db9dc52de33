import { API_ROOT, STATUS_OF_REFUSAL, api, type AnyEndpoint, type BodyOf, type Operation, type ParamsOf, type QueryOf, type Refusal, type ResponseOf } from '@caderno/contract';

export interface Asked<N extends Operation> {
  readonly params: ParamsOf<N>;
  readonly query: QueryOf<N>;
  readonly body: BodyOf<N>;
  readonly headers: Headers;
}

type Answers = { [N in Operation]?: (asked: Asked<N>) => ResponseOf<N> | Promise<ResponseOf<N>> };

export interface Called {
  readonly name: Operation;
  readonly params: Record<string, string>;
  readonly body: unknown;
  readonly headers: Headers;
}

/** What a stand-in says no with. */
export class Refusing extends Error {
  readonly refusal: Refusal;
  constructor(refusal: Refusal) {
    super(refusal.code);
    this.refusal = refusal;
  }
}

/** Answers what a page asks by the contract, which what is asked and what is answered are held against. */
export class StandInServer {
  readonly answers: Answers;
  readonly called: Called[] = [];
  /** Nobody answers. */
  away = false;

  constructor(answers: Answers) {
    this.answers = answers;
    globalThis.fetch = (address, init) => this.#answer(new URL(String(address), location.href), init ?? {});
  }

  calls(name: Operation): Called[] {
    return this.called.filter((c) => c.name === name);
  }

  async #answer(url: URL, init: RequestInit): Promise<Response> {
    const method = init.method ?? 'GET';
    const found = match(method, url.pathname);
    if (found === null) throw new Error(`The contract has no ${method} ${url.pathname}`);
    const { name, params } = found;
    const endpoint: AnyEndpoint = api[name];
    const headers = new Headers(init.headers);
    const body: unknown = typeof init.body === 'string' ? endpoint.body.parse(JSON.parse(init.body)) : undefined;
    this.called.push({ name, params, body, headers });
    if (this.away) throw new TypeError('Failed to fetch');
    const answer = this.answers[name] as ((asked: unknown) => unknown) | undefined;
    if (answer === undefined) throw new Error(`Nothing answers ${name}`);
    try {
      const data = await answer({ params: endpoint.params.parse(params), query: endpoint.query.parse(Object.fromEntries(url.searchParams)), body, headers });
      return new Response(JSON.stringify(endpoint.response.parse(data)), { status: 200, headers: { 'content-type': 'application/json' } });
    } catch (error) {
      if (!(error instanceof Refusing)) throw error;
      return new Response(JSON.stringify(error.refusal), { status: STATUS_OF_REFUSAL[error.refusal.code], headers: { 'content-type': 'application/problem+json' } });
    }
  }
}

function match(method: string, path: string): { readonly name: Operation; readonly params: Record<string, string> } | null {
  for (const [name, endpoint] of Object.entries<AnyEndpoint>(api)) {
    if (endpoint.method !== method) continue;
    const names = [...endpoint.path.matchAll(/:(\w+)/g)].map((m) => m[1] ?? '');
    const parts = new RegExp(`^${API_ROOT}${endpoint.path.replaceAll(/:\w+/g, '([^/]+)')}$`).exec(path);
    if (parts !== null) return { name: name as Operation, params: Object.fromEntries(names.map((n, i) => [n, decodeURIComponent(parts[i + 1] ?? '')])) };
  }
  return null;
}
