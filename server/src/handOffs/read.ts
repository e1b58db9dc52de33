import { artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { baselineNumber } from '@caderno/core/baselines';
import { handOffNumber, type HandOffLine, type HandOffNumber } from '@caderno/core/handOffs';
import { ownerOf } from '@caderno/core/suites';
import { handOffConfigurationsSchema, handOffLinesSchema, type HandOff, type HandOffListed } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

const time = z.date().transform((date) => date.toISOString());
const storedRow = z.object({
  number: z.number().transform(handOffNumber), name: z.string(), note: z.string(), of: z.string(), baseline: z.number().transform(baselineNumber), due: z.string().nullable(), by: z.string(), at: time, configurations: handOffConfigurationsSchema, lines: handOffLinesSchema,
});
type Stored = z.infer<typeof storedRow>;

/** The hand-offs of a project, the latest first. */
export async function listHandOffs(work: UnitOfWork, projectId: string): Promise<HandOffListed[]> {
  return (await stored(work, projectId, null)).map(headOf);
}

/** @throws {DomainError} when the project has none of this number. */
export async function readHead(work: UnitOfWork, projectId: string, number: HandOffNumber): Promise<HandOffListed> {
  return headOf(await readStored(work, projectId, number));
}

/** A hand-off with its lines, and which of them are newer by now. @throws {DomainError} when the project has none of this number. */
export async function readHandOff(work: UnitOfWork, projectId: string, number: HandOffNumber): Promise<HandOff> {
  const handOff = await readStored(work, projectId, number);
  const heads = await readHeadVersions(work, projectId);
  const now = new Map(handOff.lines.flatMap(({ of, version }): [typeof of, number][] => {
    const head = heads.get(ownerOf(of)) ?? 0;
    return head === version ? [] : [[of, head]];
  }));
  return { ...headOf(handOff), configurations: handOff.configurations, lines: handOff.lines, now: [...now].map(([of, version]) => ({ of, version })) };
}

/** As it is kept. @throws {DomainError} when the project has none of this number. */
export async function readStored(work: UnitOfWork, projectId: string, number: HandOffNumber): Promise<Stored> {
  const [found] = await stored(work, projectId, number);
  if (found === undefined) throw new DomainError({ code: 'hand_off_unknown' });
  return found;
}

function stored(work: UnitOfWork, projectId: string, number: HandOffNumber | null): Promise<Stored[]> {
  return selectRows(
    work,
    storedRow,
    `SELECT h.number, h.name, h.note, h.of, b.number AS baseline, h.due::text AS due, p.name AS by, h.at, h.configurations, h.lines
     FROM hand_off h JOIN baseline b ON b.id = h.baseline_id JOIN person p ON p.id = h.made_by WHERE h.project_id = $1 AND ($2::int IS NULL OR h.number = $2) ORDER BY h.number DESC`,
    [projectId, number],
  );
}

function headOf({ configurations: _, lines, ...head }: Stored): HandOffListed {
  const sum = (of: (line: HandOffLine) => number): number => lines.reduce((all, line) => all + of(line), 0);
  return { ...head, instances: sum((line) => line.instances), minutes: sum((line) => line.instances * (line.minutes ?? 0)), people: [...new Set(lines.map((line) => line.person).filter((name) => name !== ''))] };
}

const versionRow = z.object({ kind: z.enum(['case', 'feature']), number: z.number(), head: z.number() });

/** The latest versions of cases and features that are not withdrawn. */
async function readHeadVersions(work: UnitOfWork, projectId: string): Promise<Map<ArtefactId, number>> {
  const rows = await selectRows(work, versionRow, `SELECT kind, number, head FROM artefact WHERE project_id = $1 AND kind IN ('case', 'feature') AND deleted_at IS NULL AND state <> 'withdrawn'`, [projectId]);
  return new Map(rows.map((row) => [artefactId(row.kind, row.number), row.head]));
}

