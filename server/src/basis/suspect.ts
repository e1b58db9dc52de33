import { randomUUID } from 'node:crypto';
import { ARTEFACT_KINDS, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { withTargetsSeen } from '@caderno/core/kinds';
import type { BodyOf, Change, SuspectLink } from '@caderno/contract';
import { z } from 'zod';
import { changeOfRetry, findArtefact, lockProject, readContent, writeJournalEntry, writeVersions, type Actor, type Save } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { SUSPECT_SQL } from '../projects/index.ts';
import { DomainError } from '../domainError.ts';
import { readChange } from '../versions/index.ts';

const MOST_LISTED = 2_000;

const suspectLinkRow = z.object({ fromKind: z.enum(ARTEFACT_KINDS), fromNumber: z.number(), fromTitle: z.string(), toKind: z.enum(ARTEFACT_KINDS), toNumber: z.number(), toTitle: z.string(), seen: z.number(), now: z.number() });

/** The suspect links of a project, by what they lead to. */
export async function listSuspectLinks(work: UnitOfWork, projectId: string): Promise<SuspectLink[]> {
  const rows = await selectRows(
    work,
    suspectLinkRow,
    `SELECT s.kind AS "fromKind", s.number AS "fromNumber", s.title AS "fromTitle", t.kind AS "toKind", t.number AS "toNumber", t.title AS "toTitle", l.seen_version AS seen, t.head AS now
     ${SUSPECT_SQL} ORDER BY t.kind DESC, t.number, s.number LIMIT ${MOST_LISTED}`,
    [projectId],
  );
  return rows.map((r) => ({ from: artefactId(r.fromKind, r.fromNumber), fromTitle: r.fromTitle, to: artefactId(r.toKind, r.toNumber), toTitle: r.toTitle, seen: r.seen, now: r.now }));
}

/** Says of links that they are still right with the version the person had in view: one change for all. */
export async function settleSuspectLinks(work: UnitOfWork, actor: Actor, links: BodyOf<'settleSuspectLinks'>['links']): Promise<Change> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return readChange(work, actor.projectId, earlier);
  const seen = new Map<ArtefactId, Map<ArtefactId, number>>();
  for (const { from, to, now } of links) {
    if (now > (await findArtefact(work, actor.projectId, to)).head) throw new DomainError({ code: 'version_unknown', id: to, version: now });
    seen.set(from, (seen.get(from) ?? new Map<ArtefactId, number>()).set(to, now));
  }
  const saves: Save[] = [];
  for (const [from, targets] of seen) {
    const row = await findArtefact(work, actor.projectId, from);
    saves.push({ row, value: withTargetsSeen(await readContent(work, row, row.head), targets) });
  }
  const change = randomUUID();
  const parts = await writeVersions(work, actor, change, saves);
  if (parts.length === 0) throw new DomainError({ code: 'links_settled_already' });
  await writeJournalEntry(work, actor, { action: 'settle', parts, detail: '', note: '' }, change);
  return readChange(work, actor.projectId, change);
}
