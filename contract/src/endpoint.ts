import type { z } from 'zod';
import type { TokenScope } from './accounts.ts';
import type { Role } from './people.ts';

/**
 * Who may call: anyone, anyone signed in, whoever may make projects, an administrator of the installation (nobody of the
 * demo is one), or a member of the project with at least a role.
 */
export type Access = 'anyone' | 'signedIn' | 'projectMaker' | 'installationAdministrator' | Role;

/** The methods the API uses. */
export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/** One operation of the API: the single definition that routes, clients and the OpenAPI document are made of. */
export interface Endpoint<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType, R extends z.ZodType> {
  readonly method: Method;
  /** Below `/api/v1`, with `:names` for parameters. */
  readonly path: string;
  readonly access: Access;
  readonly summary: string;
  /** What an access token must allow to call it; absent: no token is enough. */
  readonly token?: TokenScope;
  readonly params: P;
  readonly query: Q;
  readonly body: B;
  readonly response: R;
  /** Changes nothing, although it is no GET: what it asks is too long for an address. */
  readonly reads?: true;
  /** Who sees only some modules may call it with the project's own key; everything else they ask of the part that they see. */
  readonly ofPart?: true;
  /** Bytes the body may have; `LIMITS.request` where nothing is said. */
  readonly most?: number;
}

/** An operation of whatever shape. */
export type AnyEndpoint = Endpoint<z.ZodType, z.ZodType, z.ZodType, z.ZodType>;
