import { buildCli } from './build.mjs';
import { run } from './failure.mjs';

run(async () => {
  console.log(await buildCli());
  return 0;
});
