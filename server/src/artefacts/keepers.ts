import { ARTEFACT_KINDS, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { modulesKeptFrom, ROLES } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { readSettings } from '../projects/index.ts';

/** Who does something in which project. */
interface Whose {
  readonly projectId: string;
  readonly personId: string;
}

/** An artefact that is changed, by its row; `before`: the version that stood there, null where it has none. */
export interface Touched {
  readonly id: string;
  readonly before: number | null;
}

/** One that its keepers alone change. */
export interface KeptArtefact {
  readonly rowId: string;
  readonly id: ArtefactId;
  readonly module: string;
}

const roleRow = z.object({ role: z.enum(ROLES).nullable() });
const keptRow = z.object({ rowId: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), module: z.string() });

/** A condition is in the modules of its requirements, of those it had as of those it has now. */
const KEPT = `
  SELECT DISTINCT ON (a.id) a.id AS "rowId", a.kind, a.number, m.module
  FROM jsonb_to_recordset($1::jsonb) AS t(id bigint, before int) JOIN artefact a ON a.id = t.id
  LEFT JOIN artefact_version v ON v.artefact_id = a.id AND v.version = t.before
  CROSS JOIN LATERAL (
    SELECT a.module UNION ALL SELECT v.content->>'module' UNION ALL
    SELECT r.module FROM (SELECT jsonb_array_elements_text(a.facts->'requirements') UNION SELECT jsonb_array_elements(v.content->'requirements')->>'id') AS of(id)
    JOIN artefact r ON r.project_id = a.project_id AND r.kind = 'requirement' AND r.number = substring(of.id FROM '^R-([0-9]+)$')::int
    WHERE a.kind = 'condition'
  ) AS m(module)
  WHERE m.module = ANY($2) ORDER BY a.id`;

/** Those among some that are not this person's to change. */
export async function keptByOthers(work: UnitOfWork, { projectId, personId }: Whose, touched: readonly Touched[]): Promise<KeptArtefact[]> {
  const { keepers } = (await readSettings(work, projectId)).settings;
  if (keepers.length === 0 || touched.length === 0) return [];
  const [person] = await selectRows(work, roleRow, `SELECT CASE WHEN p.administrator THEN 'administrator' ELSE m.role END AS role FROM person p LEFT JOIN member m ON m.person_id = p.id AND m.project_id = $1 WHERE p.id = $2`, [projectId, personId]);
  const modules = modulesKeptFrom(keepers, { id: personId, role: person?.role ?? 'reader' });
  if (modules.length === 0) return [];
  const rows = await selectRows(work, keptRow, KEPT, [JSON.stringify(touched), modules]);
  return rows.map(({ rowId, kind, number, module }) => ({ rowId, id: artefactId(kind, number), module }));
}

const nameRow = z.object({ name: z.string() });

/** @throws {DomainError} when something of it is others' to change. */
export async function refuseKeptByOthers(work: UnitOfWork, whose: Whose, touched: readonly Touched[]): Promise<void> {
  const [first] = await keptByOthers(work, whose, touched);
  if (first === undefined) return;
  const { keepers } = (await readSettings(work, whose.projectId)).settings;
  const people = keepers.find((k) => k.module === first.module)?.people ?? [];
  const names = await selectRows(work, nameRow, 'SELECT p.name FROM person p JOIN member m ON m.person_id = p.id AND m.project_id = $1 WHERE p.id = ANY($2) ORDER BY p.name', [whose.projectId, people]);
  throw new DomainError({ code: 'kept_by_others', id: first.id, module: first.module, people: names.map((n) => n.name) });
}
