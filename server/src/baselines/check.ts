import { ARTEFACT_KINDS, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import type { BaselineNumber } from '@caderno/core/baselines';
import type { ResponseOf } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { contentHash } from '../artefacts/index.ts';
import { inSnapshot, selectRows, type UnitOfWork } from '../database/index.ts';
import { baselineHead } from './read.ts';
import { sealOf } from './take.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 500;

const contentRow = z.object({ rowId: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), hash: z.string(), content: z.unknown() });
const settingsRow = z.object({ settings: z.looseObject({}) });

/** Reads every content that a baseline holds and holds it against the hash it was sealed with. Nothing else waits meanwhile. */
export async function checkSeal(db: Sequelize, projectId: string, number: BaselineNumber): Promise<ResponseOf<'checkBaseline'>> {
  return inSnapshot(db, async (work) => {
    const { id: rowId, seal } = await baselineHead(work, projectId, number);
    const altered: ArtefactId[] = [];
    for (let after = '0'; ; ) {
      const some = await contentsAfter(work, rowId, after);
      altered.push(...some.flatMap((s) => (contentHash(s.content) === s.hash ? [] : [artefactId(s.kind, s.number)])));
      const last = some.at(-1);
      if (last === undefined) break;
      after = last.rowId;
    }
    const [stored] = await selectRows(work, settingsRow, 'SELECT settings FROM baseline WHERE id = $1', [rowId]);
    return { seal, fits: (await sealOf(work, rowId, stored?.settings ?? {})) === seal, altered };
  });
}

function contentsAfter(work: UnitOfWork, baseline: string, after: string): Promise<z.infer<typeof contentRow>[]> {
  return selectRows(
    work,
    contentRow,
    // The few first, then what they hold: joined before they are few, all of it would be read every time.
    `WITH few AS MATERIALIZED (SELECT artefact_id, version FROM baseline_item WHERE baseline_id = $1 AND artefact_id > $2 ORDER BY artefact_id LIMIT ${AT_A_TIME})
     SELECT i.artefact_id AS "rowId", a.kind, a.number, v.hash, v.content FROM few i JOIN artefact a ON a.id = i.artefact_id JOIN artefact_version v ON v.artefact_id = i.artefact_id AND v.version = i.version ORDER BY i.artefact_id`,
    [baseline, after],
  );
}
