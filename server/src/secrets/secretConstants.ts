import { SECRET_MASK, type Constant } from '@caderno/core/shared';
import type { ProjectSettings } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { SecretBox } from './secretBox.ts';

/** The configuration under which the usual value is kept. */
const USUAL = '';

const placeOf = (projectId: string, constant: string, configuration: string): string => `${projectId}/${constant}/${configuration}`;

/**
 * The settings as they may be stored: values of secret constants are sealed apart, and a mask stands in their place,
 * here as in undo data and on screens. A mask that comes back means the value that is kept.
 */
export async function keepSecrets(work: UnitOfWork, box: SecretBox, projectId: string, settings: ProjectSettings): Promise<ProjectSettings> {
  const kept = new Set((await selectRows<{ key: string }>(work, `SELECT constant || '/' || configuration AS key FROM secret WHERE project_id = $1`, [projectId])).map((row) => row.key));
  const constants: Constant[] = [];
  const lasting = new Set<string>();
  for (const constant of settings.constants) {
    const keep = async (value: string, configuration: string): Promise<string> => {
      const key = `${constant.id}/${configuration}`;
      if (!constant.secret) return value === SECRET_MASK ? '' : value;
      if (value === '' || (value === SECRET_MASK && !kept.has(key))) return '';
      lasting.add(key);
      if (value !== SECRET_MASK) await store(work, projectId, constant.id, configuration, box.seal(value, placeOf(projectId, constant.id, configuration)));
      return SECRET_MASK;
    };
    const others: Record<string, string> = {};
    for (const [configuration, value] of Object.entries(constant.others)) others[configuration] = await keep(value, configuration);
    constants.push({ ...constant, value: await keep(constant.value, USUAL), others });
  }
  const gone = [...kept].filter((key) => !lasting.has(key));
  if (gone.length > 0) await execute(work, `DELETE FROM secret WHERE project_id = $1 AND constant || '/' || configuration = ANY($2)`, [projectId, gone]);
  return { ...settings, constants };
}

async function store(work: UnitOfWork, projectId: string, constant: string, configuration: string, sealed: Buffer): Promise<void> {
  await execute(work, 'INSERT INTO secret (project_id, constant, configuration, sealed) VALUES ($1, $2, $3, $4) ON CONFLICT (project_id, constant, configuration) DO UPDATE SET sealed = excluded.sealed', [projectId, constant, configuration, sealed]);
}

/** The value of a secret constant. @throws {DomainError} when there is none, or it was sealed with another key. */
export async function revealSecret(work: UnitOfWork, box: SecretBox, projectId: string, constant: string, configuration: string | null): Promise<string> {
  const [row] = await selectRows<{ sealed: Buffer }>(work, 'SELECT sealed FROM secret WHERE project_id = $1 AND constant = $2 AND configuration = $3', [projectId, constant, configuration ?? USUAL]);
  const value = row === undefined ? null : box.open(row.sealed, placeOf(projectId, constant, configuration ?? USUAL));
  if (value === null) throw new DomainError({ code: 'constant_unknown' });
  return value;
}

/** Seals what older versions of Caderno stored readable, in settings and in undo data. Does nothing the second time. */
export async function sealStoredSecrets(db: Sequelize, box: SecretBox): Promise<void> {
  await inTransaction(db, async (work) => {
    const projects = await selectRows<{ id: string; settings: ProjectSettings }>(work, `SELECT id, settings FROM project WHERE settings @> '{"constants": [{"secret": true}]}' FOR UPDATE`);
    for (const { id, settings } of projects) {
      if (!settings.constants.some(isReadable)) continue;
      const sealed = await keepSecrets(work, box, id, { ...settings, constants: settings.constants.map((c) => ({ ...c, others: c.others ?? {} })) });
      await execute(work, 'UPDATE project SET settings = $2 WHERE id = $1', [id, JSON.stringify(sealed)]);
    }
    const parts = await selectRows<{ changeId: string; place: number; undo: { from: ProjectSettings; to: ProjectSettings } }>(
      work,
      `SELECT change_id AS "changeId", place, undo FROM change_part WHERE undo->>'kind' = 'settings' AND (undo->'from' @> '{"constants": [{"secret": true}]}' OR undo->'to' @> '{"constants": [{"secret": true}]}')`,
    );
    for (const { changeId, place, undo } of parts) {
      if (![...(undo.from.constants ?? []), ...(undo.to.constants ?? [])].some(isReadable)) continue;
      const masked = { ...undo, from: withMasks(undo.from), to: withMasks(undo.to) };
      await execute(work, 'UPDATE change_part SET undo = $3 WHERE change_id = $1 AND place = $2', [changeId, place, JSON.stringify(masked)]);
    }
  });
}

function isReadable({ secret, value, others }: Constant): boolean {
  return secret && [value, ...Object.values(others ?? {})].some((v) => v !== '' && v !== SECRET_MASK);
}

function withMasks(settings: ProjectSettings): ProjectSettings {
  const mask = (value: string): string => (value === '' ? '' : SECRET_MASK);
  return { ...settings, constants: (settings.constants ?? []).map((c) => (c.secret ? { ...c, value: mask(c.value), others: Object.fromEntries(Object.entries(c.others ?? {}).map(([k, v]) => [k, mask(v)])) } : c)) };
}
