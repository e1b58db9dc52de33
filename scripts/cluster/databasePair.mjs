import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { startPostgres, startStandby } from '../postgres.mjs';

/**
 * A primary, and a standby that has everything before it is acknowledged. When the primary ends the standby takes
 * over, and another standby is made; when the standby ends, so too. While there is none, what is acknowledged stands
 * on one disk, as without a cluster.
 */
export class DatabasePair {
  #folder;
  #tell;
  #onMoved;
  #made = 0;
  #stopping = false;
  /** What is being done about an end; one after the other. */
  #mending = Promise.resolve();
  primary = null;
  standby = null;

  /** `onMoved` hears of a new primary, or of a new standby. */
  constructor(folder, tell, onMoved) {
    this.#folder = folder;
    this.#tell = tell;
    this.#onMoved = onMoved;
  }

  /** A first primary keeps its place; what follows it is copied anew. */
  async start() {
    this.#takeAsPrimary(await startPostgres(join(this.#folder, 'first')));
    await this.#addStandby();
  }

  async stop() {
    this.#stopping = true;
    await this.#mending.catch(() => undefined);
    // The primary first: the standby then has all of it.
    await this.primary?.stop();
    await this.standby?.stop();
  }

  #takeAsPrimary(postgres) {
    this.primary = postgres;
    postgres.onEnd(() => this.#mend(() => this.#primaryEnded(postgres)));
  }

  #mend(action) {
    this.#mending = this.#mending.then(() => (this.#stopping ? undefined : action())).catch((error) => this.#tell(`The databases could not be mended: ${error.message}`));
  }

  async #primaryEnded(ended) {
    if (this.primary !== ended) return;
    const next = this.standby;
    if (next === null) {
      this.#tell('The primary ended and there is no standby. It is started again.');
      this.#takeAsPrimary(await startPostgres(ended.folder));
    } else {
      this.#tell('The primary ended. The standby takes over.');
      this.standby = null;
      await next.promote();
      await waitsForStandby(next, false);
      this.#takeAsPrimary(next);
    }
    await this.#onMoved();
    await this.#addStandby();
  }

  async #standbyEnded(ended) {
    if (this.standby !== ended) return;
    this.#tell('The standby ended. Another one is made.');
    this.standby = null;
    await waitsForStandby(this.primary, false);
    await this.#addStandby();
  }

  async #addStandby() {
    await waitsForStandby(this.primary, false);
    this.#made += 1;
    const folder = join(this.#folder, `standby-${process.pid}-${this.#made}`);
    await rm(folder, { recursive: true, force: true });
    const standby = await startStandby(this.primary, folder);
    this.standby = standby;
    standby.onEnd(() => this.#mend(() => (standby === this.primary ? undefined : this.#standbyEnded(standby))));
    await waitsForStandby(this.primary, true);
    await untilInStep(this.primary);
    this.#tell('A standby follows the primary.');
    await this.#onMoved();
  }
}

/** Whether a commit waits until a standby has it. */
async function waitsForStandby(postgres, waits) {
  await asked(postgres, `ALTER SYSTEM SET synchronous_standby_names = '${waits ? '*' : ''}'`);
  await asked(postgres, 'SELECT pg_reload_conf()');
}

/** Until the standby is the one that commits wait for. */
async function untilInStep(primary) {
  for (let waited = 0; waited < 30_000; waited += 100) {
    const { rows } = await asked(primary, `SELECT 1 FROM pg_stat_replication WHERE sync_state IN ('sync', 'quorum')`);
    if (rows.length > 0) return;
    await sleep(100);
  }
  throw new Error('the standby does not follow the primary');
}

async function asked({ url }, sql) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  try {
    return await client.query(sql);
  } finally {
    await client.end();
  }
}
