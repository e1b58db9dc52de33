import { afterAll, beforeAll } from '@jest/globals';
import { API_ROOT, type Role } from '@caderno/contract';
import { makeSetUpWord } from '../src/people/index.ts';
import { makeDatabase, startServer, type Caller, type TestServer } from './harness.ts';

export const PASSWORD = 'meters under the bridge';

/** Somebody with a session of their own. */
export interface Person {
  readonly token: string;
  readonly call: Caller;
}

/** A server that real people have accounts on, with its first administrator, whose project is `p`. Theirs is a password, PASSWORD. */
export function withAccounts() {
  const the = {} as { database: Awaited<ReturnType<typeof makeDatabase>>; server: TestServer; root: Person };
  const send = (method: string, path: string, body: object, headers: Record<string, string> = {}) => the.server.fetch(`${API_ROOT}${path}`, { method, headers: { 'content-type': 'application/json', ...headers }, body: JSON.stringify(body) });
  const person = (response: Response): Person => {
    const token = /caderno_session=([^;]+)/.exec(response.headers.get('set-cookie') ?? '')?.[1] ?? '';
    return { token, call: the.server.as(token) };
  };
  const enter = (email: string, password: string) => send('POST', '/session', { email, password });
  /** A member of the project with an account, signed in. */
  const member = async (name: string, role: Role = 'analyst'): Promise<Person & { readonly id: string }> => {
    const { data } = await the.root.call('addMember', { body: { name, email: `${name}@p.example`, password: PASSWORD, role } });
    return { ...person(await enter(`${name}@p.example`, PASSWORD)), id: data.id };
  };
  beforeAll(async () => {
    the.database = await makeDatabase();
    the.server = await startServer(the.database.url, { demoSignIn: 'whileAlone' });
    const word = (await makeSetUpWord(the.server.db)) ?? '';
    the.root = person(await send('POST', '/setup', { name: 'Rosa A.', email: 'rosa@p.example', password: PASSWORD, word }));
    await the.root.call('createProject', { body: { key: 'p', name: 'P' } });
  });
  afterAll(async () => {
    await the.server.close();
    await the.database.drop();
  });
  return { the, send, enter, person, member };
}
