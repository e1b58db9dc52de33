import { rm } from 'node:fs/promises';

export default async function teardown() {
  const { folder, postgres } = globalThis.cadernoTestPostgres;
  await postgres.stop();
  await rm(folder, { recursive: true, force: true });
}
