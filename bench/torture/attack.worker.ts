// Started by attack.worker.mjs, which teaches Node.js to read TypeScript.
import { parentPort, workerData } from 'node:worker_threads';
import { ATTACKS, type Attacker } from './attacks.ts';

/** An attack in a thread of its own, so that who attacks does not hold up who measures. */
const { name, attacker } = workerData as { readonly name: string; readonly attacker: Attacker };
const attack = ATTACKS[name];
if (attack === undefined) throw new Error(`There is no attack ${name}`);
parentPort?.postMessage(await attack(attacker));
