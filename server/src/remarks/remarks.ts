import { artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { mentionedIn, type Remark, type RemarkId, type RemarkThread } from '@caderno/core/remarks';
import { remarkIdSchema, remarkThreadSchema, roleReaches, type BodyOf, type Role } from '@caderno/contract';
import { z } from 'zod';
import { findArtefact } from '../artefacts/index.ts';
import { artefactKeyRow, countRow, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { followersSql, put } from '../inbox/index.ts';
import { listMembers } from '../people/index.ts';
import { tellPages } from '../projects/index.ts';

/** Who says something, in which project, and when. */
export interface Speaker {
  readonly projectId: string;
  readonly personId: string;
  readonly role: Role;
  readonly at: Date;
}

/** Remarks of one artefact, answers and those taken back among them. */
const MOST_REMARKS = 5_000;

const time = z.date().transform((date) => date.toISOString());
const remarkRow = z.object({
  id: remarkIdSchema,
  thread: remarkIdSchema,
  place: remarkThreadSchema.shape.place.nullable(),
  said: z.string().nullable(),
  version: z.number().nullable(),
  settledAt: time.nullable(),
  settledBy: z.string().nullable(),
  author: z.string(),
  name: z.string(),
  text: z.string(),
  at: time,
  editedAt: time.nullable(),
  earlier: z.array(z.object({ text: z.string(), until: z.string().transform((at) => new Date(at).toISOString()) })),
  takenBackAt: time.nullable(),
  offer: z.string().nullable(),
  takenBy: z.string().nullable(),
  takenAt: time.nullable(),
  takenVersion: z.number().nullable(),
});

/** The threads of an artefact with all that was said, in the order they were begun. */
export async function listRemarks(work: UnitOfWork, projectId: string, id: ArtefactId): Promise<RemarkThread[]> {
  const { id: rowId } = await findArtefact(work, projectId, id);
  const rows = await selectRows(
    work,
    remarkRow,
    `SELECT r.id, r.thread_id AS thread, r.place, r.said, r.version, r.settled_at AS "settledAt", s.name AS "settledBy", r.author_id AS author, p.name, r.text, r.at, r.edited_at AS "editedAt", r.taken_back_at AS "takenBackAt",
       (SELECT coalesce(json_agg(json_build_object('text', b.text, 'until', b.until) ORDER BY b.until), '[]') FROM remark_before b WHERE b.remark_id = r.id AND r.taken_back_at IS NULL) AS earlier,
       r.offer, t.name AS "takenBy", r.taken_at AS "takenAt", r.taken_version AS "takenVersion"
     FROM remark r JOIN person p ON p.id = r.author_id LEFT JOIN person s ON s.id = r.settled_by LEFT JOIN person t ON t.id = r.taken_by WHERE r.artefact_id = $1 ORDER BY r.at, r.id`,
    [rowId],
  );
  return rows.flatMap(({ id: thread, place, said, version, settledAt, settledBy }): RemarkThread[] => {
    if (place === null) return [];
    const settled = settledAt === null ? null : { name: settledBy ?? '', at: settledAt };
    const remarks = rows.flatMap((row) => (row.thread === thread ? [remarkOf(row)] : []));
    return [{ id: thread, place, said: said ?? '', version: version ?? 1, settled, remarks }];
  });
}

function remarkOf({ id, author, name, text, at, editedAt, earlier, takenBackAt, offer, takenBy, takenAt, takenVersion }: z.infer<typeof remarkRow>): Remark {
  const taken = takenAt === null || takenVersion === null ? null : { name: takenBy ?? '', at: takenAt, version: takenVersion };
  return { id, author, name, text, at, editedAt, earlier, takenBackAt, offer: offer === null ? null : { text: offer, taken } };
}

/** Begins a thread at a place. The same remark again changes nothing. */
export async function beginThread(work: UnitOfWork, speaker: Speaker, id: ArtefactId, { remark, place, said, version, text, offer }: BodyOf<'beginThread'>): Promise<RemarkThread[]> {
  const { id: rowId } = await findArtefact(work, speaker.projectId, id);
  await write(work, speaker, { id: remark, artefactId: rowId, thread: remark, text, offer: offer ?? null, first: { place: JSON.stringify(place), said, version } });
  return told(work, speaker, id);
}

/** Answers in a thread; one that is settled is open again. */
export async function answer(work: UnitOfWork, speaker: Speaker, thread: RemarkId, { remark, text, offer }: BodyOf<'answerRemark'>): Promise<RemarkThread[]> {
  const there = await findRemark(work, speaker, thread);
  await write(work, speaker, { id: remark, artefactId: there.artefactId, thread: there.thread, text, offer: offer ?? null, first: null });
  await settle(work, there.thread, null);
  return told(work, speaker, there.of);
}

/** Says a remark otherwise; what it said is kept. @throws {DomainError} when it is somebody else's, or taken back. */
export async function rewordRemark(work: UnitOfWork, speaker: Speaker, id: RemarkId, text: string): Promise<RemarkThread[]> {
  const there = await findRemark(work, speaker, id);
  if (there.author !== speaker.personId || there.takenBack) throw new DomainError({ code: 'remark_not_yours' });
  if (text !== there.text) {
    await execute(work, 'INSERT INTO remark_before (remark_id, text, until) VALUES ($1, $2, $3)', [id, there.text, speaker.at]);
    await execute(work, 'UPDATE remark SET text = $2, edited_at = $3 WHERE id = $1', [id, text, speaker.at]);
    await noteMentions(work, speaker, id, text);
  }
  return told(work, speaker, there.of);
}

/** Takes a remark back: that there was one is still seen, what it said is kept and shown to nobody. */
export async function takeBackRemark(work: UnitOfWork, speaker: Speaker, id: RemarkId): Promise<RemarkThread[]> {
  const there = await findRemark(work, speaker, id);
  if (there.author !== speaker.personId && !roleReaches(speaker.role, 'lead')) throw new DomainError({ code: 'remark_not_yours' });
  if (!there.takenBack) {
    await execute(work, 'INSERT INTO remark_before (remark_id, text, until) VALUES ($1, $2, $3)', [id, there.text, speaker.at]);
    await execute(work, `UPDATE remark SET text = '', offer = NULL, taken_back_at = $2 WHERE id = $1`, [id, speaker.at]);
    await execute(work, 'DELETE FROM mention WHERE remark_id = $1', [id]);
  }
  return told(work, speaker, there.of);
}

/** Says that a thread is settled, or open again: whoever began it may, and whoever changes the design. */
export async function settleThread(work: UnitOfWork, speaker: Speaker, id: RemarkId, settled: boolean): Promise<RemarkThread[]> {
  const there = await findRemark(work, speaker, id);
  if (there.author !== speaker.personId && !roleReaches(speaker.role, 'analyst')) throw new DomainError({ code: 'role_too_low', needed: 'analyst', have: speaker.role });
  await settle(work, there.thread, settled ? speaker : null);
  return told(work, speaker, there.of);
}

/** Says that a thread is settled by somebody; null: that it is open. */
export async function settle(work: UnitOfWork, thread: RemarkId, by: Speaker | null): Promise<void> {
  await execute(work, 'UPDATE remark SET settled_at = $2, settled_by = $3 WHERE id = $1 AND (settled_at IS NULL) <> ($2::timestamptz IS NULL)', [thread, by?.at ?? null, by?.personId ?? null]);
}

const foundRow = artefactKeyRow.extend({ artefactId: z.string(), thread: remarkIdSchema, author: z.string(), text: z.string(), takenBack: z.boolean() });

/** Locked: two who answer and settle at once do so one after the other. A remark of another project is not there. */
export async function findRemark(work: UnitOfWork, { projectId }: Speaker, id: RemarkId): Promise<z.infer<typeof foundRow> & { readonly of: ArtefactId }> {
  const [found] = await selectRows(
    work,
    foundRow,
    `SELECT a.kind, a.number, r.artefact_id AS "artefactId", r.thread_id AS thread, r.author_id AS author, r.text, r.taken_back_at IS NOT NULL AS "takenBack"
     FROM remark r JOIN artefact a ON a.id = r.artefact_id WHERE r.id = $1 AND a.project_id = $2 AND a.deleted_at IS NULL FOR UPDATE OF r`,
    [id, projectId],
  );
  if (found === undefined) throw new DomainError({ code: 'remark_unknown' });
  return { ...found, of: artefactId(found.kind, found.number) };
}

interface Written {
  readonly id: RemarkId;
  readonly artefactId: string;
  readonly thread: RemarkId;
  readonly text: string;
  readonly offer: string | null;
  readonly first: { readonly place: string; readonly said: string; readonly version: number } | null;
}

async function write(work: UnitOfWork, speaker: Speaker, said: Written): Promise<void> {
  const { id, artefactId: rowId, thread, text, offer, first } = said;
  if (await isThere(work, speaker, said)) return;
  const [{ count } = { count: 0 }] = await selectRows(work, countRow, 'SELECT count(*)::int AS count FROM remark WHERE artefact_id = $1', [rowId]);
  if (count >= MOST_REMARKS) throw new DomainError({ code: 'too_many_remarks', limit: MOST_REMARKS });
  const written = await selectRows(
    work,
    z.object({ id: z.string() }),
    `INSERT INTO remark (id, artefact_id, thread_id, place, said, version, author_id, text, at, offer) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
     ON CONFLICT (id) DO NOTHING RETURNING id`,
    [id, rowId, thread, first?.place ?? null, first?.said ?? null, first?.version ?? null, speaker.personId, text, speaker.at, offer],
  );
  // Sent twice at once: the other has written it meanwhile, and told everybody.
  if (written.length === 0 && (await isThere(work, speaker, said))) return;
  await noteMentions(work, speaker, id, text);
  await deliverRemark(work, speaker, id, rowId);
}

/** Whether this very remark is there. @throws {DomainError} when another has its id. */
async function isThere(work: UnitOfWork, { personId }: Speaker, { id, artefactId: rowId, thread }: Written): Promise<boolean> {
  const [there] = await selectRows(work, z.object({ same: z.boolean() }), 'SELECT artefact_id = $2 AND thread_id = $3 AND author_id = $4 AS same FROM remark WHERE id = $1', [id, rowId, thread, personId]);
  if (there?.same === false) throw new DomainError({ code: 'remark_unknown' });
  return there !== undefined;
}

const reasonRow = z.object({ person: z.string(), reason: z.enum(['named', 'answered', 'remarked']) });

/** Tells whoever it names, who spoke in the thread, and who follows what it is about; each for the most urgent of these reasons. */
async function deliverRemark(work: UnitOfWork, { projectId, personId, at }: Speaker, id: RemarkId, rowId: string): Promise<void> {
  const reasons = await selectRows(
    work,
    reasonRow,
    `SELECT DISTINCT ON (person) person, reason FROM (
       SELECT m.person_id AS person, 'named' AS reason, 1 AS urgency FROM mention m WHERE m.remark_id = $1
       UNION ALL SELECT o.author_id, 'answered', 2 FROM remark r JOIN remark o ON o.thread_id = r.thread_id AND o.taken_back_at IS NULL WHERE r.id = $1
       UNION ALL SELECT f.person_id, 'remarked', 3 FROM (${followersSql('$2', '$3')}) f) reached ORDER BY person, urgency`,
    [id, rowId, projectId],
  );
  for (const reason of ['named', 'answered', 'remarked'] as const) {
    const people = reasons.flatMap((r) => (r.reason === reason ? [r.person] : []));
    if (people.length > 0) await put(work, { projectId, reason, by: personId, at, people, artefactId: rowId, remarkId: id });
  }
}

async function noteMentions(work: UnitOfWork, { projectId }: Speaker, id: RemarkId, text: string): Promise<void> {
  const named = mentionedIn(text, await listMembers(work, projectId)).map((m) => m.id);
  await execute(work, 'DELETE FROM mention WHERE remark_id = $1', [id]);
  await execute(work, 'INSERT INTO mention (remark_id, person_id) SELECT $1, unnest($2::uuid[])', [id, named]);
}

/** Tells all pages, and answers what is said by now. */
export async function told(work: UnitOfWork, { projectId }: Speaker, id: ArtefactId): Promise<RemarkThread[]> {
  await tellPages(work, projectId, { event: 'remarked', data: { id } });
  return listRemarks(work, projectId, id);
}
