import { run } from './run.ts';

process.exitCode = await run(process.argv.slice(2), { env: process.env, print: (line) => console.log(line), complain: (line) => console.error(line) });
