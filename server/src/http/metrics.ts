import { Gauge, Histogram, Registry, collectDefaultMetrics } from 'prom-client';
import type { Sequelize } from 'sequelize';
import type { Jobs } from '../jobs/index.ts';
import type { Streams } from './streams.ts';

/** Seconds; an ordinary command has a tenth of one. */
const BUCKETS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.15, 0.25, 0.5, 1, 2.5, 10, 60];

/** What is counted of a server while it runs, for whoever watches over it. No names of people or projects, no contents. */
export class Metrics {
  readonly #registry = new Registry();
  readonly #requests = this.#seconds('caderno_request_seconds', 'Requests by route and status', ['route', 'status']);
  readonly #told = this.#seconds('caderno_event_lag_seconds', 'From hearing of a change to telling the open pages');
  readonly #covered = this.#seconds('caderno_coverage_lag_seconds', 'From hearing of a change to coverage being brought up to it');

  constructor() {
    collectDefaultMetrics({ register: this.#registry });
  }

  /** Counts what a pool has, and who waits for it. */
  watchPool(db: Sequelize): void {
    this.#count('caderno_pool_connections', 'Connections to the database', () => ofPool(db, 'size'));
    this.#count('caderno_pool_in_use', 'Connections that are in use', () => ofPool(db, 'using'));
    this.#count('caderno_pool_waiting', 'Requests that wait for a connection', () => ofPool(db, 'waiting'));
  }

  watchStreams(streams: Streams): void {
    this.#count('caderno_event_streams', 'Open event streams', () => streams.count);
  }

  watchJobs(jobs: Jobs): void {
    this.#count('caderno_jobs', 'Jobs under way on this server', () => jobs.underWay);
  }

  request(route: string, status: number, ms: number): void {
    this.#requests.observe({ route, status: String(status) }, ms / 1_000);
  }

  told(ms: number): void {
    this.#told.observe(ms / 1_000);
  }

  covered(ms: number): void {
    this.#covered.observe(ms / 1_000);
  }

  /** In the text format of Prometheus. */
  text(): Promise<string> {
    return this.#registry.metrics();
  }

  #seconds(name: string, help: string, labelNames: string[] = []): Histogram {
    return new Histogram({ name, help, labelNames, buckets: BUCKETS, registers: [this.#registry] });
  }

  #count(name: string, help: string, read: () => number): void {
    new Gauge({ name, help, registers: [this.#registry], collect() {
      this.set(read());
    } });
  }
}

/** Sequelize's pool counts itself; its types just do not say so. */
function ofPool({ connectionManager }: Sequelize, what: 'size' | 'using' | 'waiting'): number {
  const pool: unknown = 'pool' in connectionManager ? connectionManager.pool : null;
  return typeof pool === 'object' && pool !== null && what in pool ? Number((pool as Record<string, unknown>)[what]) : 0;
}
