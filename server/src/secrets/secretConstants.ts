import { SECRET_MASK, type Constant } from '@caderno/core/shared';
import { readStoredSettings, type ProjectSettings } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { SecretBox } from './secretBox.ts';

/** The configuration under which the usual value is kept. */
const USUAL = '';

const placeOf = (projectId: string, constant: string, configuration: string): string => `${projectId}/${constant}/${configuration}`;

const keptRow = z.object({ key: z.string() });

/**
 * The settings as they may be stored: values of secret constants are sealed apart, and a mask stands in their place,
 * here as in undo data and on screens. A mask that comes back means the value that is kept.
 */
export async function keepSecrets(work: UnitOfWork, box: Pick<SecretBox, 'seal'>, projectId: string, settings: ProjectSettings): Promise<ProjectSettings> {
  const kept = new Set((await selectRows(work, keptRow, `SELECT constant || '/' || configuration AS key FROM secret WHERE project_id = $1`, [projectId])).map((row) => row.key));
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

const sealedRow = z.object({ sealed: z.instanceof(Buffer) });

/** The value of a secret constant. @throws {DomainError} when there is none, or it was sealed with another key. */
export async function revealSecret(work: UnitOfWork, box: SecretBox, projectId: string, constant: string, configuration: string | null): Promise<string> {
  const [row] = await selectRows(work, sealedRow, 'SELECT sealed FROM secret WHERE project_id = $1 AND constant = $2 AND configuration = $3', [projectId, constant, configuration ?? USUAL]);
  const value = row === undefined ? null : box.open(row.sealed, placeOf(projectId, constant, configuration ?? USUAL));
  if (value === null) throw new DomainError({ code: 'constant_unknown' });
  return value;
}

const constantsRow = z.object({ id: z.string(), settings: z.unknown() });
const undoRow = z.object({ changeId: z.string(), place: z.number(), from: z.unknown(), to: z.unknown() });
const WITH_SECRETS = `@> '{"constants": [{"secret": true}]}'`;

/** Seals what older versions of Caderno stored readable, in settings and in undo data. Does nothing the second time; nothing but the constants is touched. */
export async function sealStoredSecrets(db: Sequelize, box: SecretBox): Promise<void> {
  await inTransaction(db, async (work) => {
    for (const { id, settings } of await selectRows(work, constantsRow, `SELECT id, settings FROM project WHERE settings ${WITH_SECRETS} FOR UPDATE`)) {
      const stored = readStoredSettings(settings).settings;
      if (!stored.constants.some(isReadable)) continue;
      const { constants } = await keepSecrets(work, box, id, stored);
      await execute(work, `UPDATE project SET settings = jsonb_set(settings, '{constants}', $2::jsonb) WHERE id = $1`, [id, JSON.stringify(constants)]);
    }
    const parts = await selectRows(
      work,
      undoRow,
      `SELECT change_id AS "changeId", place, undo->'from' AS "from", undo->'to' AS "to" FROM change_part WHERE undo->>'kind' = 'settings' AND (undo->'from' ${WITH_SECRETS} OR undo->'to' ${WITH_SECRETS})`,
    );
    for (const { changeId, place, from, to } of parts) {
      const [before, after] = [readStoredSettings(from).settings.constants, readStoredSettings(to).settings.constants];
      if (![...before, ...after].some(isReadable)) continue;
      await execute(work, `UPDATE change_part SET undo = jsonb_set(jsonb_set(undo, '{from,constants}', $3::jsonb), '{to,constants}', $4::jsonb) WHERE change_id = $1 AND place = $2`, [changeId, place, JSON.stringify(before.map(withMask)), JSON.stringify(after.map(withMask))]);
    }
  });
}

function isReadable({ secret, value, others }: Constant): boolean {
  return secret && [value, ...Object.values(others)].some((v) => v !== '' && v !== SECRET_MASK);
}

function withMask(constant: Constant): Constant {
  const mask = (value: string): string => (value === '' ? '' : SECRET_MASK);
  return constant.secret ? { ...constant, value: mask(constant.value), others: Object.fromEntries(Object.entries(constant.others).map(([configuration, value]) => [configuration, mask(value)])) } : constant;
}
