import { databaseUrl, migrateDatabase, openDatabase } from './database/database';
import { collect } from './storage/collect';

/** "npm run collect": removes what nothing names any more; with --dry it only says what that is. */
async function main(): Promise<void> {
  const { pool, db } = openDatabase(databaseUrl(), 2);
  await migrateDatabase(pool, db);
  const dry = process.argv.includes('--dry');
  const { files, bytes, paintings, orderParts, reduced, forgotten } = await collect(db, { dry });
  const what = [
    `${files} files (${(bytes / 1024 / 1024).toFixed(1)} MB)`,
    `${paintings} pictures that no delivery or board names`,
    `${orderParts} documents of such pictures`,
    `${reduced} reduced copies`,
    `${forgotten} removed things that could be brought back for long enough`,
  ];
  console.log(`${dry ? 'Would be removed' : 'Removed'}: ${what.join(', ')}.`);
  await pool.end();
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
