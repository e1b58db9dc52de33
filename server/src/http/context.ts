import type { Asking } from '@caderno/core/find';
import type { Sequelize } from 'sequelize';
import type { Actor } from '../artefacts/index.ts';
import type { MailPlace, MailServer } from '../mail/index.ts';
import type { CoverageKeeper } from '../coverage/index.ts';
import type { Phrasebooks } from '../scenarios/index.ts';
import type { SuiteLines } from '../suites/index.ts';
import type { TrendCounter } from '../trend/index.ts';
import type { Importer } from '../exchange/index.ts';
import type { Files } from '../files/index.ts';
import type { Jobs } from '../jobs/index.ts';
import type { UnitOfWork } from '../database/index.ts';
import type { DemoSignIn, Membership, SignedIn } from '../people/index.ts';
import { DomainError } from '../domainError.ts';
import type { SecretBox } from '../secrets/index.ts';
import type { ChangeFeed } from './changeFeed.ts';
import type { HeavyLane } from './heavyLane.ts';
import type { Log } from './log.ts';
import type { Metrics } from './metrics.ts';
import type { ProjectNews } from './projectNews.ts';
import type { Proxies } from './proxies.ts';
import type { Stopping } from './stopping.ts';

/** What the application is made of; made once by main, or by a test. */
export interface Parts {
  readonly db: Sequelize;
  readonly coverage: CoverageKeeper;
  readonly files: Files;
  readonly importer: Importer;
  readonly phrasebooks: Phrasebooks;
  readonly suiteLines: SuiteLines;
  readonly trend: TrendCounter;
  readonly jobs: Jobs;
  readonly heavy: HeavyLane;
  readonly feed: ChangeFeed;
  readonly news: ProjectNews;
  readonly log: Log;
  readonly secrets: SecretBox;
  readonly stopping: Stopping;
  readonly metrics: Metrics;
  /** The word by which others than this machine may read the metrics; null: nobody else may. */
  readonly metricsToken: string | null;
  /** Folder of the built web application; null: the API alone. */
  readonly webFolder: string | null;
  /** Folder where bodies are written while they come in, and files while they go out. */
  readonly spool: string;
  /** Names under which the server may be called. */
  readonly hosts: ReadonlySet<string>;
  readonly demoSignIn: DemoSignIn;
  /** Where mails go; null: none are sent. */
  readonly mail: MailPlace | null;
  readonly mailServer: Pick<MailServer, 'send'> | null;
  /** Who passes requests on and is believed for whom. */
  readonly proxies: Proxies;
  /** Hosts that a story tracker may have besides those that an administrator allows. */
  readonly outsideHosts: readonly string[];
  readonly now: () => Date;
  readonly version: string;
  readonly startedAt: Date;
}

/** Who calls, and with what; what they send is parsed apart. */
export interface Admitted {
  readonly parts: Parts;
  /** Null only where anyone may call. */
  readonly person: SignedIn | null;
  /** Set for calls below a project. */
  readonly membership: Pick<Membership, 'projectId' | 'role' | 'sees'> | null;
  readonly ifMatch: number | null;
  readonly commandId: string | null;
  readonly session: { readonly token: string | null; set(token: string | null): void };
  /** Whom failed sign-ins are counted for. */
  readonly remote: string;
  /** What the browser calls itself. */
  readonly agent: string;
}

/** What a handler that works in one transaction needs of the server; a thread has as much. */
export type HeldParts = Pick<Parts, 'demoSignIn' | 'mail' | 'secrets' | 'now'>;

/** What a handler gets that works in one transaction. */
export interface Call extends Omit<Admitted, 'parts'> {
  readonly parts: HeldParts;
  readonly work: UnitOfWork;
}

export function personOf(call: Pick<Admitted, 'person'>): SignedIn {
  if (call.person === null) throw new DomainError({ code: 'not_signed_in' });
  return call.person;
}

export function membershipOf(call: Pick<Admitted, 'membership'>): Pick<Membership, 'projectId' | 'role' | 'sees'> {
  if (call.membership === null) throw new Error('A call below a project has a membership');
  return call.membership;
}

/** Who asks a query, and when. */
export function askingOf(call: Pick<Admitted, 'person'> & { readonly parts: Pick<Parts, 'now'> }): Asking {
  return { name: personOf(call).name, now: call.parts.now().getTime() };
}

export function actorOf(call: Pick<Admitted, 'membership' | 'person' | 'commandId'> & { readonly parts: Pick<Parts, 'now'> }): Actor {
  return { projectId: membershipOf(call).projectId, personId: personOf(call).id, at: call.parts.now(), commandId: call.commandId };
}
