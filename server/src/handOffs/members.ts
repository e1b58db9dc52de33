import { ARTEFACT_STATES, artefactId, scenarioId, type ArtefactId, type ArtefactState, type ConditionId, type CoveringId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import { DOUBTS, doubtsOfContent, type Doubt } from '@caderno/core/handOffs';
import { visibleConstants, type Configuration } from '@caderno/core/shared';
import { configurationsRun, ownerOf, thatRun, type FoundMember } from '@caderno/core/suites';
import type { AskHandOff, HandOffMember, HandOffPreview } from '@caderno/contract';
import { z } from 'zod';
import { numberRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { readSettings } from '../projects/index.ts';
import { findMembers, knownMembers, readSuite } from '../suites/index.ts';
import { readContents, type MeantContents } from './contents.ts';

/** What would be handed off, with all that it says. */
export interface FoundForHandOff extends HandOffPreview {
  readonly read: MeantContents;
  readonly configurations: readonly Configuration[];
}

/**
 * The members of a suite as they stand in a project, or all cases and scenarios of the moment of a baseline, and what is doubtful about each.
 * `projectId`: the project, or the moment.
 */
export async function findForHandOff(work: UnitOfWork, projectId: string, { of, configurations: chosen }: Pick<AskHandOff, 'of' | 'configurations'>, now: number): Promise<FoundForHandOff> {
  const { settings } = await readSettings(work, projectId);
  const configurations = settings.configurations.filter((c) => chosen.includes(c.id));
  if (configurations.length < chosen.length) throw new DomainError({ code: 'configuration_unknown' });
  const members = 'suite' in of ? (await findMembers(work, projectId, (await readSuite(work, projectId, of.suite)).content, now)).members : await allOf(work, projectId);
  const { facts } = await knownMembers(work, projectId, members);
  const there = members.flatMap(({ of: id, runsIn }) => {
    const known = facts.get(id);
    return known === undefined || known.state === 'withdrawn' ? [] : [{ of: id, version: known.version, runsIn }];
  });
  const read = await readContents(work, projectId, there);
  const constants = new Map([null, ...configurations.map((c) => c.id)].map((id) => [id, visibleConstants(settings.constants, id)]));
  const standing = await readStanding(work, projectId);
  const chosenIds = configurations.map((c) => c.id);
  const executed = new Set<CoveringId>(thatRun(there, chosenIds).map((m) => m.of));
  const told = there.flatMap(({ of: id, version, runsIn }): HandOffMember[] => {
    const content = read.contents.get(id);
    if (content === undefined) return [];
    const { instances, doubts } = doubtsOfContent(content, read.library, configurationsRun(runsIn, chosenIds).flatMap((c) => constants.get(c) ?? []));
    // Of what is executed nowhere nobody need know more.
    const doubtful = executed.has(id) ? [...doubts, ...standing.doubts(id, version, content, executed)] : [];
    const { title, module, owner, execution, estimate } = content;
    return [{ of: id, version, title, module, owner, execution, minutes: estimate, instances, runsIn, same: false, doubts: inOrder(doubtful) }];
  });
  const handed = new Set(told.map((m) => m.of));
  return { members: told, absent: members.flatMap((m) => (handed.has(m.of) ? [] : [m.of])), read, configurations };
}

function inOrder(doubts: readonly Doubt[]): Doubt[] {
  return doubts.toSorted((a, b) => DOUBTS.indexOf(a.kind) - DOUBTS.indexOf(b.kind));
}

const featureRow = z.object({ number: z.number(), scenarios: z.array(z.object({ number: z.number() })) });

/** All cases and scenarios that are not withdrawn, by their numbers. */
async function allOf(work: UnitOfWork, projectId: string): Promise<FoundMember[]> {
  const where = `project_id = $1 AND deleted_at IS NULL AND state <> 'withdrawn'`;
  const cases = await selectRows(work, numberRow, `SELECT number FROM artefact WHERE ${where} AND kind = 'case' ORDER BY number`, [projectId]);
  const features = await selectRows(work, featureRow, `SELECT number, coalesce(facts->'scenarios', '[]') AS scenarios FROM artefact WHERE ${where} AND kind = 'feature' ORDER BY number`, [projectId]);
  const ids: CoveringId[] = [...cases.map((row) => artefactId('case', row.number)), ...features.flatMap((row) => row.scenarios.map((s) => scenarioId(artefactId('feature', row.number), s.number)))];
  return ids.map((of) => ({ of, pinned: null, entry: null, part: null, runsIn: null }));
}

interface Standing {
  readonly doubts: (of: CoveringId, version: number, content: CaseContent, handed: ReadonlySet<CoveringId>) => Doubt[];
}

const standingRow = z.object({ kind: z.enum(['case', 'feature', 'condition']), number: z.number(), state: z.enum(ARTEFACT_STATES), agreed: z.number().nullable(), meaningSince: z.number() });

/** What is doubtful about a version by how it and what it leads to stand in the project. */
async function readStanding(work: UnitOfWork, projectId: string): Promise<Standing> {
  const rows = await selectRows(
    work,
    standingRow,
    `SELECT kind, number, state, agreed_version AS agreed, meaning_since AS "meaningSince" FROM artefact WHERE project_id = $1 AND kind IN ('case', 'feature', 'condition') AND deleted_at IS NULL AND state <> 'withdrawn'`,
    [projectId],
  );
  const byId = new Map<ArtefactId, z.infer<typeof standingRow>>(rows.map((row) => [artefactId(row.kind, row.number), row]));
  const isSuspect = (id: ConditionId, seen: number): boolean => seen < (byId.get(id)?.meaningSince ?? 0);
  return {
    doubts: (of, version, content, handed) => {
      const row = byId.get(ownerOf(of));
      const state: ArtefactState = row === undefined || row.agreed === version ? 'agreed' : row.state === 'agreed' ? 'draft' : row.state;
      const suspect = content.covers.filter((cover) => isSuspect(cover.id, cover.seenVersion)).map((cover) => cover.id);
      const outside = content.dependsOn.map((d) => d.id).filter((id) => byId.has(id) && !handed.has(id));
      return [...(suspect.length === 0 ? [] : [{ kind: 'suspect' as const, ids: suspect }]), ...(state === 'agreed' ? [] : [{ kind: 'notAgreed' as const, state }]), ...(outside.length === 0 ? [] : [{ kind: 'outside' as const, ids: outside }])];
    },
  };
}
