import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { buildServer, buildStandins, buildThreads, buildWeb } from './build.mjs';
import { Balancer } from './cluster/balancer.mjs';
import { Pool } from './cluster/pool.mjs';
import { Failure, run } from './failure.mjs';
import { ROOT, checkNode, installDebianPackage, installPackages } from './install.mjs';
import { installPostgres } from './postgres.mjs';
import { runProgram } from './processes.mjs';

/** Each folder's code is held against what it may use: the core against nothing, the server against Node, the web against a browser. The longest first. */
const CHECKS = ['check:dependencies', 'check:lint', 'check:types:web', 'check:types:node', 'check:types:tools', 'check:types:pure'];

/** As many as a small machine has cores. */
const CHECKS_AT_ONCE = 2;

/** What has not ended by then hangs: it is ended itself, so that the run tells where it stood. */
const LONGEST_MS = 80 * 60_000;
const began = Date.now();

/** Runs a part of the whole; says when it began. */
async function runPart(name, program, args, options) {
  console.log(`${Math.round((Date.now() - began) / 60_000)} min: ${name}`);
  const result = await runProgram(program, args, { ...options, atMost: Math.max(1, began + LONGEST_MS - Date.now()) });
  if (result.tooLong) console.log(`FAILED ${name} did not end within ${LONGEST_MS / 60_000} minutes of the whole and was ended`);
  return result;
}

/** Runs everything: types, lint, dependency rules, Jest, Playwright. Ends with the line `N passed, N failed`. */
async function main() {
  checkNode();
  await installPackages();
  await installPostgres();
  await installDebianPackage('chromium-headless-shell', () => existsSync('/usr/bin/chromium-headless-shell'));
  await Pool.install();
  await Balancer.install();
  const reports = await mkdtemp(join(tmpdir(), 'caderno-reports-'));
  const total = { passed: 0, failed: 0 };
  const failures = [];
  const add = ({ passed, failed, why = [] }) => {
    total.passed += passed;
    total.failed += failed;
    failures.push(...why);
  };
  await runChecks(add);
  // Built once, before two tests, or two halves, would build at the same place: each begins with emptying it.
  await Promise.all([buildWeb(), buildServer(), buildStandins(), buildThreads()]);
  add(await runJest(join(reports, 'jest.json')));
  add(await runPlaywright(reports));
  await rm(reports, { recursive: true, force: true });
  for (const line of failures) console.log(line);
  console.log(`${total.passed} passed, ${total.failed} failed`);
  return total.failed === 0 ? 0 : 1;
}

async function runChecks(add) {
  const waiting = [...CHECKS];
  const next = async () => {
    for (let check = waiting.shift(); check !== undefined; check = waiting.shift()) add(await runCheck(check));
  };
  await Promise.all(Array.from({ length: CHECKS_AT_ONCE }, next));
}

async function runCheck(name) {
  const { code, output } = await runPart(name, 'npm', ['run', '--silent', name], { cwd: ROOT });
  console.log(`${code === 0 ? 'ok    ' : 'FAILED'} ${name}`);
  if (code !== 0) console.log(output);
  return { passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1 };
}

async function runJest(report) {
  const env = { ...process.env, NODE_OPTIONS: '--experimental-vm-modules --no-warnings' };
  const { code } = await runPart('Jest', 'npx', ['--no-install', 'jest', '--json', `--outputFile=${report}`], { cwd: ROOT, env, show: true });
  const result = await readReport('Jest', report);
  const failed = result.numFailedTests + result.numRuntimeErrorTestSuites;
  return { ...counted('Jest', result.numPassedTests, failed, code), why: failuresOfJest(result) };
}

/** Two halves at once, each with a browser, a server and a database of its own. */
async function runPlaywright(reports) {
  const halves = await Promise.all([1, 2].map((half) => runShard(half, join(reports, `playwright-${half}.json`))));
  return { passed: halves[0].passed + halves[1].passed, failed: halves[0].failed + halves[1].failed, why: halves.flatMap((h) => h.why) };
}

async function runShard(half, report) {
  const env = { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: report, CADERNO_E2E_RESULTS: `test-results/${half}` };
  const { code } = await runPart(`Playwright ${half} of 2`, 'npx', ['--no-install', 'playwright', 'test', '--reporter=line,json', `--shard=${half}/2`], { cwd: join(ROOT, 'e2e'), env, show: true });
  const { stats, suites } = await readReport('Playwright', report);
  return { ...counted(`Playwright ${half} of 2`, stats.expected, stats.unexpected + stats.flaky, code), why: failuresOfPlaywright(suites) };
}

// What failed and why is said once more at the end, where it is found: of a long output only the end may be kept.

function failuresOfJest({ testResults }) {
  return testResults.flatMap(({ name, message, assertionResults }) => {
    const failed = assertionResults.filter((a) => a.status === 'failed');
    const said = failed.length === 0 && message !== '' ? [{ fullName: 'could not be run', failureMessages: [message] }] : failed;
    return said.map((a) => `FAILED ${relative(ROOT, name)} ${a.fullName}\n       ${stripVTControlCharacters(a.failureMessages.join('\n')).slice(0, 1_500)}`);
  });
}

function failuresOfPlaywright(suites) {
  const specs = suites.flatMap(function all(suite) {
    return [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(all)];
  });
  const results = specs.filter((spec) => !spec.ok).flatMap((spec) => spec.tests.flatMap((t) => t.results.map((result) => ({ spec, result }))));
  return results.flatMap(({ spec, result }) => (result.errors ?? []).map((e) => `FAILED ${spec.file}:${spec.line} ${spec.title}\n       ${stripVTControlCharacters(e.message ?? '').slice(0, 1_500)} (${e.location?.file}:${e.location?.line})`));
}

async function readReport(name, file) {
  if (!existsSync(file)) throw new Failure(`${name} ended without a report; what it printed above says why.\n0 passed, 1 failed`);
  return JSON.parse(await readFile(file, 'utf8'));
}

/** A runner that failed without a failed test has failed all the same, and so has one that ran nothing. */
function counted(name, passed, failed, code) {
  const fault = failed === 0 && (code !== 0 || passed === 0) ? 1 : 0;
  console.log(`${failed + fault === 0 ? 'ok    ' : 'FAILED'} ${name}: ${passed} passed, ${failed + fault} failed`);
  return { passed, failed: failed + fault };
}

run(main);
