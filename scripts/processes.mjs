import { spawn } from 'node:child_process';

/** Runs a program to its end; answers its exit code and what it printed. `show` passes its output on as well. */
export function runProgram(program, args, { env = process.env, cwd = process.cwd(), show = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { env, cwd, stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    for (const [stream, target] of [[child.stdout, process.stdout], [child.stderr, process.stderr]]) {
      stream.on('data', (chunk) => {
        output += chunk;
        if (show) target.write(chunk);
      });
    }
    child.on('error', reject);
    child.on('close', (code) => resolve({ code: code ?? 1, output }));
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
