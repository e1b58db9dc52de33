import { migrate, openDatabase } from './database/index.ts';
import { checkData, type DataFault } from './upkeep/index.ts';

/** `npm run check-data`: reads everything that is stored and prints what cannot be read. Ends with 1 when there is any. */
async function main(): Promise<number> {
  const url = process.env.DATABASE_URL;
  if (url === undefined) throw new Error('It is run by npm run check-data, which says where the database is');
  const db = openDatabase(url);
  await migrate(db);
  const { checked, faults } = await checkData(db);
  await db.close();
  for (const fault of faults) console.log(faultSentence(fault));
  console.log(`${checked} versions and drafts read, ${faults.length} cannot be.`);
  return faults.length === 0 ? 0 : 1;
}

function faultSentence({ project, what, issues }: DataFault): string {
  const why = issues.slice(0, 3).map((i) => `${i.path || 'as a whole'} ${i.message}`).join('; ');
  switch (what.kind) {
    case 'version':
      return `${project}: v${what.version} of ${what.id} cannot be read (${why}).${what.head ? ' It is the newest: open it in Caderno to put an earlier one back.' : ''}`;
    case 'draft':
      return `${project}: the draft of ${what.id} by ${what.person} cannot be read (${why}). Its page shows the newest version instead.`;
    case 'settings':
      return `${project}: the setting ‘${what.part}’ cannot be read. Its default holds until it is set again.`;
  }
}

main().then(
  (code) => process.exit(code),
  (error: unknown) => {
    console.error(error);
    process.exit(2);
  },
);
