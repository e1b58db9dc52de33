import type { ArtefactId } from '@caderno/core/artefacts';
import type { ReviewedVersion, VersionWithContent } from '@caderno/contract';
import { z } from 'zod';
import { findArtefact, readContent } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

const versionLineRow = z.object({ version: z.number(), author: z.string(), at: z.date(), note: z.string() });

/** What each person said last of a version in a review. */
const answerRow = z.object({ version: z.number(), review: z.number(), name: z.string(), agrees: z.boolean(), note: z.string(), at: z.date() });

const SELECT = `SELECT v.version, person.name AS author, v.at, v.note FROM artefact_version v JOIN person ON person.id = v.author_id`;

/** The versions of an artefact, newest first. */
export async function listVersions(work: UnitOfWork, projectId: string, id: ArtefactId): Promise<ReviewedVersion[]> {
  const row = await findArtefact(work, projectId, id);
  const lines = await selectRows(work, versionLineRow, `${SELECT} WHERE v.artefact_id = $1 ORDER BY v.version DESC`, [row.id]);
  const said = await selectRows(
    work,
    answerRow,
    `SELECT DISTINCT ON (w.version, r.number, w.person_id) w.version, r.number AS review, p.name, w.agrees, w.note, w.at
     FROM review_answer w JOIN review r ON r.id = w.review_id JOIN person p ON p.id = w.person_id WHERE w.artefact_id = $1 ORDER BY w.version, r.number, w.person_id, w.id DESC`,
    [row.id],
  );
  return lines.map((line) => ({ ...line, at: line.at.toISOString(), answers: said.flatMap(({ version, at, ...answer }) => (version === line.version ? [{ ...answer, at: at.toISOString() }] : [])) }));
}

export async function readVersion(work: UnitOfWork, projectId: string, id: ArtefactId, version: number): Promise<VersionWithContent> {
  const row = await findArtefact(work, projectId, id);
  const [line] = await selectRows(work, versionLineRow, `${SELECT} WHERE v.artefact_id = $1 AND v.version = $2`, [row.id, version]);
  if (line === undefined) throw new DomainError({ code: 'version_unknown', id, version });
  return { ...line, at: line.at.toISOString(), ...(await readContent(work, row, version)) };
}
