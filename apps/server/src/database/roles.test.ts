import { expect, test } from '@jest/globals';
import pg from 'pg';

/** The database that the start command keeps: who gets in, and what they may do there. */
const url = `${process.env.SCENOGRAPH_TEST_CLUSTER}/postgres`;

async function ask(connectionString: string, query: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString });
  try {
    await client.connect();
    return (await client.query(query)).rows as unknown[];
  } finally {
    await client.end().catch(() => undefined);
  }
}

test('nobody gets in without a password, or with another', async () => {
  const named = new URL(url);
  for (const [user, password] of [
    [named.username, 'guessed'],
    ['scenograph', 'guessed'],
    ['postgres', 'guessed'],
  ]) {
    named.username = user;
    named.password = password;
    await expect(ask(named.href, 'select 1')).rejects.toThrow(/password authentication failed/);
  }
});

test('the application is no superuser: it runs no programs and reads no files of the machine', async () => {
  const [role] = await ask(url, 'select rolsuper, rolcreaterole from pg_roles where rolname = current_user');
  expect(role).toEqual({ rolsuper: false, rolcreaterole: false });
  await expect(ask(url, "copy (select 1) to program 'id'")).rejects.toThrow(/must be superuser/);
  await expect(ask(url, "select pg_read_file('/etc/hostname')")).rejects.toThrow(/permission denied/);
});
