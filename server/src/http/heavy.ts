import { parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { api } from '@caderno/contract';
import { z } from 'zod';
import { isMomentToBeMade, isPartToBeMade } from '../moments/index.ts';
import { answersAny, selectRows, type UnitOfWork } from '../database/index.ts';
import { hashToken } from '../people/index.ts';
import type { Call } from './context.ts';
import type { HeldOperation, HeldRequest } from './handlers.ts';

/** Characters of a body from which on it is read, checked and stored in a thread of its own. */
const LONG_BODY = 1_000_000;

/** Bytes of stored contents, as the database packs them, from which on they are read in a thread of their own. */
const LARGE_STORED = 150_000;

/** Artefacts changed or made by one command up to which it stays with the server: starting a thread would take longer. */
const FEW = 50;

const sizeRow = z.object({ bytes: z.number() });

/** Whether carrying it out would hold up everybody else: by what is sent, or by what is stored of what it names. */
export async function isHeavy(work: UnitOfWork, { name, body, params }: HeldRequest, { membership, person }: Call): Promise<boolean> {
  if (name === 'findPlaces') return true;
  if (body !== null && body.length > LONG_BODY) return true;
  if (name === 'changeMany') {
    const few = fewNamed(body);
    return few === null || membership === null || (await storedSize(work, ofArtefacts(few, membership.projectId))) > LARGE_STORED;
  }
  if (name === 'openMoment') return membership !== null && (await isMomentToBeMade(work, membership.projectId, params.moment ?? ''));
  if (name === 'openPart') return membership !== null && (await isPartToBeMade(work, membership));
  if (name === 'openReadLink') return makesTuples(work, readJson(body));
  if (name === 'bringBack' || name === 'planBringBack') {
    const sent = api.bringBack.body.safeParse(readJson(body));
    return sent.success && (!('ids' in sent.data.of) || sent.data.of.ids.length > FEW);
  }
  const sizeOf = STORED_SIZE[name];
  if (sizeOf === undefined || membership === null || person === null) return false;
  return (await storedSize(work, sizeOf(params, membership.projectId, person.id))) > LARGE_STORED;
}

type Query = readonly [sql: string, bind: readonly unknown[]];

async function storedSize(work: UnitOfWork, query: Query): Promise<number> {
  const [stored] = await selectRows(work, sizeRow, ...query);
  return stored?.bytes ?? 0;
}

/** The artefacts of a command on few that are named; null when a query finds them, or when they are many. What cannot be read is refused at once. */
function fewNamed(body: string | null): readonly ArtefactId[] | null {
  const sent = api.changeMany.body.safeParse(readJson(body));
  if (!sent.success) return [];
  const { of, done } = sent.data;
  if (!('ids' in of) || done.kind === 'replace') return null;
  return of.ids.length * (done.kind === 'clone' ? done.sets.length : 1) <= FEW ? of.ids : null;
}

/** What a combination leaves is worked out anew for whoever has a link to one. */
async function makesTuples(work: UnitOfWork, sent: unknown): Promise<boolean> {
  const read = api.openReadLink.body.safeParse(sent);
  if (!read.success) return false;
  return answersAny(
    work,
    `SELECT 1 FROM read_link l JOIN artefact a ON a.id = l.artefact_id JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE l.token_hash = $1 AND a.kind = 'condition' AND v.content->'model'->>'kind' = 'combination'`,
    [hashToken(read.data.token)],
  );
}

function readJson(body: string | null): unknown {
  try {
    return JSON.parse(body ?? '');
  } catch {
    // It is refused where it is read for good, which names what is wrong.
    return null;
  }
}

const ofArtefacts = (ids: readonly ArtefactId[], projectId: string): Query => {
  const parsed = ids.flatMap((id) => parseArtefactId(id) ?? []);
  return [
    `SELECT coalesce(sum(pg_column_size(v.content)), 0)::int AS bytes FROM unnest($2::text[], $3::int[]) AS named (kind, number)
     JOIN artefact a ON a.project_id = $1 AND a.kind = named.kind AND a.number = named.number JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head`,
    [projectId, parsed.map((p) => p.kind), parsed.map((p) => p.number)],
  ];
};

const ofArtefact = ({ id = '' }: HeldRequest['params'], projectId: string, personId: string): Query => {
  const parsed = parseArtefactId(id);
  return [
    `SELECT coalesce(pg_column_size(v.content), 0) + coalesce(pg_column_size(d.content), 0) AS bytes FROM artefact a
     JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head LEFT JOIN draft d ON d.artefact_id = a.id AND d.person_id = $4
     WHERE a.project_id = $1 AND a.kind = $2 AND a.number = $3`,
    [projectId, parsed?.kind ?? '', parsed?.number ?? 0, personId],
  ];
};

const ofChange = ({ change = '' }: HeldRequest['params'], projectId: string): Query => [
  `SELECT coalesce(sum(pg_column_size(v.content)), 0)::int AS bytes FROM change c JOIN change_part p ON p.change_id = c.id JOIN artefact a ON a.id = p.artefact_id
   JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head WHERE c.project_id = $1 AND c.id::text = $2`,
  [projectId, change],
];

/** How much is stored of what an operation reads. */
const STORED_SIZE: { readonly [N in HeldOperation]?: (params: HeldRequest['params'], projectId: string, personId: string) => Query } = {
  readArtefact: ofArtefact,
  saveArtefact: ofArtefact,
  dropDraft: ofArtefact,
  setState: ofArtefact,
  readVersion: ofArtefact,
  restoreVersion: ofArtefact,
  undoChange: ofChange,
};
