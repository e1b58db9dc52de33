import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { notePersonEvent, type SignedIn } from '../people/index.ts';

const HOSTS = 'outside hosts';

const hostsRow = z.object({ value: z.string() });

/** The hosts that an administrator allows story trackers to have, one a line in the database. */
export async function readOutsideHosts(work: UnitOfWork): Promise<string[]> {
  const [row] = await selectRows(work, hostsRow, 'SELECT value FROM installation WHERE name = $1', [HOSTS]);
  return (row?.value ?? '').split('\n').filter((host) => host !== '');
}

export async function saveOutsideHosts(work: UnitOfWork, by: SignedIn, hosts: readonly string[]): Promise<string[]> {
  const wanted = [...new Set(hosts)].sort();
  await execute(work, 'INSERT INTO installation (name, value) VALUES ($1, $2) ON CONFLICT (name) DO UPDATE SET value = excluded.value', [HOSTS, wanted.join('\n')]);
  await notePersonEvent(work, { action: 'hostsChanged', by: by.id, detail: wanted.join(', ').slice(0, 2_000) });
  return wanted;
}
