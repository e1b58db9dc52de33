import { randomBytes, randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { API_ROOT, EVENTS_PATH, type Artefact } from '@caderno/contract';
import { createBenchServer } from '@caderno/server/bench';
import { artefactsOf } from './fillLarge.ts';
import { designOf, seeded } from './largeProject.ts';
import { report, type Figure } from './measure.ts';
import { spawnServer, type SpawnedServer } from './startedServer.ts';

/** How many work, in how many projects, for how long. The defaults end in minutes; an office of another size is played by the environment. */
const OFFICE = { projects: numberOf('OFFICE_PROJECTS', 50), people: numberOf('OFFICE_PEOPLE', 10), seconds: numberOf('OFFICE_SECONDS', 40) };
/** People of one project, whom one server is to bear. */
const ONE_PROJECT = 200;
/** A project as a team has it after some months. */
const SIZES = { requirements: 120, conditions: 500, cases: 1_000 };
/** Pages have been open for a while when measuring begins: how a cold project is opened has a bench of its own. */
const WARM_SECONDS = 10;
/** Between two things a person does: mostly reading what is open. */
const THINK_SECONDS = 12;
const DRAFTS_WHILE_WRITING = 5;
const DRAFT_MS = 1_500;

type Kind = 'opening a case' | 'keeping a draft' | 'saving' | 'finding' | 'words of a filter' | 'items of coverage' | 'the journal';
/** What people do, of a hundred times. */
const DOES: readonly (readonly [Kind, number])[] = [['opening a case', 45], ['keeping a draft', 22], ['saving', 8], ['finding', 10], ['words of a filter', 5], ['items of coverage', 6], ['the journal', 4]];

interface Person {
  readonly project: string;
  readonly token: string;
  readonly origin: string;
  readonly random: (below: number) => number;
}

/** Plays an office on one server and on three; every person has a page open that is kept up to date. */
export async function officeFigures(databaseUrl: string): Promise<Figure[]> {
  const key = randomBytes(32).toString('base64');
  const filling = await createBenchServer(databaseUrl);
  const artefacts = artefactsOf(designOf(4711, SIZES));
  const teams: { readonly project: string; readonly tokens: readonly string[] }[] = [];
  for (let n = 1; n <= OFFICE.projects; n += 1) {
    const project = `team-${n}`;
    // The first has a real size; the others differ in nothing a request would notice.
    await filling.fill(project, n === 1 ? artefacts : artefactsOf(designOf(n, { requirements: 12, conditions: 50, cases: 100 })));
    teams.push({ project, tokens: await filling.people(project, n === 1 ? ONE_PROJECT : OFFICE.people, 'analyst') });
  }
  await filling.close();
  const environment = { CADERNO_KEY: key, CADERNO_DEMO_OPEN: '1' };
  const one = await spawnServer(databaseUrl, environment);
  const alone = await play('one project, one server', [one], teams.slice(0, 1));
  const whole = await play(`${OFFICE.projects} projects, one server`, [one], teams);
  const others = [await spawnServer(databaseUrl, environment), await spawnServer(databaseUrl, environment)];
  const shared = await play(`${OFFICE.projects} projects, three servers`, [one, ...others], teams);
  await Promise.all([one, ...others].map((s) => s.stop()));
  return [
    { what: `${ONE_PROJECT} people of one project, one server: p95 of all requests`, ms: alone.p95, budget: 150 },
    { what: `${ONE_PROJECT} people of one project, one server: of a core, per cent`, ms: alone.core, budget: 60, unit: '%' },
    { what: `${OFFICE.projects} projects, one server: p95 of all requests`, ms: whole.p95, budget: 150 },
    { what: `${OFFICE.projects} projects, three servers: p95 of all requests`, ms: shared.p95, budget: 150 },
    { what: 'an office at work: requests that failed', ms: alone.failed + whole.failed + shared.failed, budget: 0, unit: '' },
  ];
}

interface Played {
  readonly p95: number;
  /** What the servers took of one core, in per cent. */
  readonly core: number;
  /** Requests that were not answered with what was asked for. */
  readonly failed: number;
}

async function play(name: string, servers: readonly SpawnedServer[], teams: readonly { readonly project: string; readonly tokens: readonly string[] }[]): Promise<Played> {
  const people = teams.flatMap(({ project, tokens }) => tokens.map((token) => ({ project, token }))).map(({ project, token }, i): Person => ({ project, token, origin: servers[i % servers.length]?.origin ?? '', random: seeded(i + 1) }));
  const times = new Map<Kind, number[]>();
  let failed = 0;
  const streams = await Promise.all(people.map(openPage));
  const from = performance.now() + WARM_SECONDS * 1_000;
  const note = (kind: Kind, ms: number, isGood: boolean): void => {
    if (performance.now() < from) return;
    if (isGood) times.set(kind, [...(times.get(kind) ?? []), ms]);
    else failed += 1;
  };
  const atWork = people.map((person) => work(person, from + OFFICE.seconds * 1_000, note));
  await sleep(WARM_SECONDS * 1_000);
  const [before, began] = [await cpuMs(servers), performance.now()];
  await Promise.all(atWork);
  const [cpu, lasted] = [(await cpuMs(servers)) - before, performance.now() - began];
  await Promise.all(streams.map((stop) => stop()));
  const all = [...times.values()].flat();
  console.log(`${name}: ${people.length} people, ${all.length} requests in ${(lasted / 1_000).toFixed(0)} s, ${failed} failed; the servers took ${((cpu / lasted) * 100).toFixed(0)} % of a core, ${(cpu / people.length / (lasted / 60_000)).toFixed(0)} ms a person and minute`);
  for (const [kind, ms] of times) console.log(`     ${kind.padEnd(22)} ${String(ms.length).padStart(6)} times   p50 ${at(ms, 0.5).toFixed(0).padStart(5)} ms   p95 ${at(ms, 0.95).toFixed(0).padStart(5)} ms   longest ${at(ms, 1).toFixed(0).padStart(5)} ms`);
  return { p95: at(all, 0.95), core: (cpu / lasted) * 100, failed };
}

function at(times: readonly number[], share: number): number {
  const sorted = times.toSorted((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
}

/** The page of a person, which hears of what others save. */
async function openPage({ origin, project, token }: Person): Promise<() => Promise<void>> {
  const response = await fetch(origin + API_ROOT + EVENTS_PATH.replace(':project', project), { headers: { cookie: `caderno_session=${token}` } });
  const reader = response.body?.getReader();
  if (reader === undefined || !response.ok) throw new Error(`The stream answered ${response.status}`);
  const read = async (): Promise<void> => {
    while (!(await reader.read()).done);
  };
  void read().catch(() => undefined);
  return () => reader.cancel();
}

/** One person at work until the office closes. */
async function work(person: Person, until: number, note: (kind: Kind, ms: number, isGood: boolean) => void): Promise<void> {
  const pause = (): number => -Math.log(1 - person.random(1_000) / 1_000) * THINK_SECONDS * 1_000;
  let sequence = 0;
  for (let rest = pause(); performance.now() + rest < until; rest = pause()) {
    await sleep(rest);
    const kind = chosen(person.random(100));
    const timed = async (method: string, path: string, body?: object, headers: Record<string, string> = {}): Promise<unknown> => {
      const began = performance.now();
      const answer = await ask(person, method, path, body, headers);
      // Somebody else saved the same case in between: that is no failure.
      note(kind, performance.now() - began, answer.ok || answer.status === 409);
      return answer.value;
    };
    const id = `C-${person.random(100) + 1}`;
    if (kind === 'opening a case') {
      await timed('GET', `/artefacts/${id}`);
      await timed('GET', `/design?case=${id}`);
    } else if (kind === 'finding') await timed('GET', `/find?words=case+${person.random(100) + 1}`);
    else if (kind === 'words of a filter') await timed('GET', `/artefacts/words?kind=case&words=reading+${person.random(50) + 1}`);
    else if (kind === 'items of coverage') await timed('GET', '/coverage/items?standing=gap&limit=50');
    else if (kind === 'the journal') await timed('GET', '/journal');
    else {
      const opened = await ask(person, 'GET', `/artefacts/${id}`);
      if (!opened.ok) {
        note(kind, 0, false);
        continue;
      }
      const artefact = opened.value as Artefact & { kind: 'case' };
      const content = { ...artefact.content, objective: randomUUID() };
      const { version } = artefact.summary;
      for (let n = 0; kind === 'keeping a draft' && n < DRAFTS_WHILE_WRITING; n += 1) {
        sequence += 1;
        await timed('PUT', `/artefacts/${id}/draft`, { kind: 'case', content: { ...content, ideas: String(n) }, base: version, sequence });
        await sleep(DRAFT_MS);
      }
      if (kind === 'saving') await timed('PUT', `/artefacts/${id}`, { kind: 'case', content, note: '' }, { 'if-match': `"${version}"` });
    }
  }
}

function chosen(percent: number): Kind {
  let left = percent;
  for (const [kind, share] of DOES) {
    if (left < share) return kind;
    left -= share;
  }
  return 'opening a case';
}

async function ask({ origin, project, token }: Person, method: string, path: string, body?: object, headers: Record<string, string> = {}): Promise<{ readonly ok: boolean; readonly status: number; readonly value: unknown }> {
  const response = await fetch(`${origin}${API_ROOT}/projects/${project}${path}`, { method, headers: { cookie: `caderno_session=${token}`, 'accept-encoding': 'gzip', 'command-id': randomUUID(), ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers }, body: body === undefined ? null : JSON.stringify(body) });
  return { ok: response.ok, status: response.status, value: await response.json() };
}

/** The time of the processor that the servers have taken, threads and all; the kernel counts hundredths of a second. */
async function cpuMs(servers: readonly SpawnedServer[]): Promise<number> {
  const stats = await Promise.all(servers.map(({ pid }) => readFile(`/proc/${pid}/stat`, 'utf8')));
  return stats.reduce((sum, stat) => {
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return sum + (Number(fields[11]) + Number(fields[12])) * 10;
  }, 0);
}

function numberOf(name: string, usual: number): number {
  return Number(process.env[name] ?? usual);
}

if (process.argv[1]?.endsWith('office.bench.ts')) process.exitCode = report(await officeFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
