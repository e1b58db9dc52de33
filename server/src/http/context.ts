import type { Role } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import type { Commander } from '../artefacts/index.ts';
import type { CoverageKeeper } from '../coverage/index.ts';
import type { Importer } from '../exchange/index.ts';
import type { Work } from '../database/index.ts';
import type { SignedIn } from '../people/index.ts';
import { Refused } from '../refused.ts';
import type { ChangeFeed } from './changeFeed.ts';
import type { Log } from './log.ts';

/** What the application is made of; made once by main, or by a test. */
export interface Parts {
  readonly db: Sequelize;
  readonly coverage: CoverageKeeper;
  readonly importer: Importer;
  readonly feed: ChangeFeed;
  readonly log: Log;
  /** Folder of the built web application; null: the API alone. */
  readonly webFolder: string | null;
  readonly now: () => Date;
}

/** What a handler gets besides its parsed input. */
export interface Call {
  readonly parts: Parts;
  readonly work: Work;
  /** Null only where anyone may call. */
  readonly person: SignedIn | null;
  /** Set for calls below a project. */
  readonly membership: { readonly projectId: string; readonly role: Role } | null;
  readonly ifMatch: number | null;
  readonly commandId: string | null;
  readonly session: { readonly token: string | null; set(token: string | null): void };
  /** Whom failed sign-ins are counted for. */
  readonly remote: string;
}

export function personOf(call: Call): SignedIn {
  if (call.person === null) throw new Refused({ code: 'not_signed_in' });
  return call.person;
}

export function membershipOf(call: Call): { readonly projectId: string; readonly role: Role } {
  if (call.membership === null) throw new Error('A call below a project has a membership');
  return call.membership;
}

export function commanderOf(call: Call): Commander {
  return { projectId: membershipOf(call).projectId, personId: personOf(call).id, at: call.parts.now(), commandId: call.commandId };
}
