import { artefactId, type CaseId, type CoveringId, type FeatureId } from '@caderno/core/artefacts';
import { ownerOf, suiteMembers } from '@caderno/core/suites';
import type { SuiteOf } from '@caderno/contract';
import { contentOrBroken } from '../artefacts/index.ts';
import type { UnitOfWork } from '../database/index.ts';
import { liveSuites } from './liveSuites.ts';
import { rulesFind } from './rules.ts';

/** The suites that a case, or scenarios of a feature, are in, those of rules too. Only whether rules find this one is asked, not what else they find. */
export async function readSuitesOf(work: UnitOfWork, projectId: string, id: CaseId | FeatureId, now: number): Promise<SuiteOf[]> {
  const known = new Map<string, CoveringId[]>();
  const suites: SuiteOf[] = [];
  for (const { number, schema, content } of await liveSuites(work, projectId)) {
    const read = contentOrBroken('suite', schema, content);
    if (read === null) continue;
    const found = suiteMembers(read, await rulesFind(work, projectId, read.entries, now, { only: id, known }));
    const members = found.filter((m) => ownerOf(m.of) === id).map(({ of, pinned, entry }) => ({ of, pinned, byRule: entry === null }));
    if (members.length > 0) suites.push({ id: artefactId('suite', number), title: read.title, members });
  }
  return suites;
}
