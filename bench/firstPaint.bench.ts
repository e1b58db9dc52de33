import { join } from 'node:path';
// @ts-expect-error The build scripts run before anything is installed and have no types.
import { buildWeb } from '../scripts/build.mjs';
import { firstPaintBytes } from './firstPaintBytes.ts';
import { report } from './measure.ts';

const bytes = await firstPaintBytes(join(String(await buildWeb()), 'assets'));
process.exitCode = report([{ what: 'JavaScript needed for the first paint, packed', ms: bytes / 1000, budget: 250, unit: 'kB' }]) ? 0 : 1;
