import { spawn } from 'node:child_process';

/** How long what a program left behind may hold its output open after its end. */
const GRACE = 2_000;

/**
 * Runs a program to its end; answers its exit code and what it printed. `show` passes its output on as well.
 * One that takes longer than `atMost` milliseconds is killed, and `tooLong` is told.
 */
export function runProgram(program, args, { env = process.env, cwd = process.cwd(), show = false, atMost = null } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { env, cwd, stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    let tooLong = false;
    for (const [stream, target] of [[child.stdout, process.stdout], [child.stderr, process.stderr]]) {
      stream.on('data', (chunk) => {
        output += chunk;
        if (show) target.write(chunk);
      });
    }
    const limit = atMost === null ? null : setTimeout(() => {
      tooLong = true;
      child.kill('SIGKILL');
    }, atMost);
    child.on('error', (error) => {
      clearTimeout(limit);
      reject(error);
    });
    // Its output closes when its last child lets go of it, which may be never.
    child.on('exit', () => setTimeout(() => [child.stdout, child.stderr].forEach((stream) => stream.destroy()), GRACE).unref());
    child.on('close', (code) => {
      clearTimeout(limit);
      resolve({ code: code ?? 1, output, tooLong });
    });
  });
}

/** Waits for a child to end; answers its exit code, null when a signal ended it. */
export function ended(child) {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) resolve(child.exitCode);
    else child.once('exit', (code) => resolve(code));
  });
}

/** Arguments that make a child get `signal` when we die in whatever way, kill -9 included. */
export function dieWithUs(signal) {
  return ['--pdeathsig', signal];
}

export const isRoot = process.getuid?.() === 0;
