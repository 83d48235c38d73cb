/**
 * Who may do what in the database of its own that "npm start" keeps: an owner, used here alone, and `scenograph_app`, which
 * is no superuser and is what server and workers are. Both have a password, in a file that only who started it reads.
 */
import { randomBytes } from 'node:crypto';
import { chownSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export const OWNER = 'scenograph';
export const APP = 'scenograph_app';

const password = () => randomBytes(24).toString('base64url');

const fileOf = (cluster) => join(cluster, 'passwords.json');
const rulesOf = (cluster) => join(cluster, 'pg_hba.conf');

/** The passwords of a cluster: they lie within it, since it may outlive the folder that leads to it. New ones where there are none. */
export const secretsOf = (cluster) =>
  existsSync(fileOf(cluster))
    ? JSON.parse(readFileSync(fileOf(cluster), 'utf8'))
    : { owner: password(), app: password() };

/**
 * Writes down the passwords of a cluster that is about to be started. Where it was made and they were lost, it is opened to
 * this machine for the moment in which `ensureRoles` gives it new ones.
 * @param {{ isNew: boolean }} options whether it was made with these very passwords
 */
export function keepSecrets(cluster, secrets, { isNew }) {
  if (existsSync(fileOf(cluster))) return;
  if (!isNew) {
    const rules = readFileSync(rulesOf(cluster), 'utf8');
    writeFileSync(rulesOf(cluster), rules.replace(/^([^#\n]*)\bscram-sha-256\s*$/gm, '$1trust'));
  }
  writeFileSync(fileOf(cluster), JSON.stringify(secrets), { mode: 0o600 });
}

/** Calls `use` with a file that holds the owner's password for as long as that takes; the database's user may read it. */
export function withPasswordFile({ owner }, user, use) {
  const folder = mkdtempSync(join(tmpdir(), 'scenograph-password-'));
  const file = join(folder, 'owner');
  try {
    writeFileSync(file, owner, { mode: 0o600 });
    if (user) for (const path of [folder, file]) chownSync(path, user.uid, user.gid);
    return use(file);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Everything in a database that a superuser made belongs to the application's role from now on. */
const HAND_OVER = `do $$ declare r record; begin
  execute format('alter database %I owner to ${APP}', current_database());
  for r in select nspname from pg_namespace where nspname !~ '^pg_' and nspname not in ('information_schema', 'public') loop
    execute format('alter schema %I owner to ${APP}', r.nspname);
  end loop;
  for r in select format('%I.%I', n.nspname, c.relname) as name, case c.relkind when 'v' then 'view' when 'm' then 'materialized view' when 'S' then 'sequence' else 'table' end as kind
    from pg_class c join pg_namespace n on n.oid = c.relnamespace
    where n.nspname !~ '^pg_' and n.nspname <> 'information_schema' and c.relkind in ('r', 'p', 'v', 'm', 'S')
      and not exists (select from pg_depend d where d.objid = c.oid and d.deptype in ('a', 'i') and c.relkind = 'S') loop
    execute format('alter %s %s owner to ${APP}', r.kind, r.name);
  end loop;
  for r in select p.oid::regprocedure as name from pg_proc p join pg_namespace n on n.oid = p.pronamespace
    where n.nspname !~ '^pg_' and n.nspname <> 'information_schema' loop
    execute format('alter routine %s owner to ${APP}', r.name);
  end loop;
  for r in select format('%I.%I', n.nspname, t.typname) as name from pg_type t join pg_namespace n on n.oid = t.typnamespace
    where n.nspname !~ '^pg_' and n.nspname <> 'information_schema' and t.typtype in ('e', 'd') loop
    execute format('alter type %s owner to ${APP}', r.name);
  end loop;
end $$`;

/**
 * Makes the application's role where it is not there. A cluster of an earlier version, which trusted everybody on this
 * machine, asks for passwords from now on; what is in it stays and changes hands.
 * @param {{ cluster: string, port: number, secrets: { owner: string, app: string } }} options
 */
export async function ensureRoles({ cluster, port, secrets }) {
  const { default: pg } = await import('pg');
  const rules = rulesOf(cluster);
  const written = readFileSync(rules, 'utf8');
  const trusting = /^[^#\n]*\btrust\s*$/m.test(written);
  const asOwner = async (database, use) => {
    const client = new pg.Client({
      host: '127.0.0.1',
      port,
      database,
      user: OWNER,
      password: secrets.owner,
    });
    await client.connect();
    try {
      return await use(client);
    } finally {
      await client.end();
    }
  };
  const databases = await asOwner('postgres', async (client) => {
    const { rowCount } = await client.query('select 1 from pg_roles where rolname = $1', [APP]);
    // Passwords of ours hold letters, digits, "-" and "_" alone.
    if (!rowCount) await client.query(`create role ${APP} login createdb password '${secrets.app}'`);
    else if (trusting) await client.query(`alter role ${APP} password '${secrets.app}'`);
    if (!trusting) return [];
    await client.query(`alter role ${OWNER} password '${secrets.owner}'`);
    const { rows } = await client.query(
      "select datname from pg_database where not datistemplate and datname <> 'postgres'",
    );
    return rows.map((row) => row.datname);
  });
  for (const database of databases) await asOwner(database, (client) => client.query(HAND_OVER));
  if (!trusting) return;
  // The file stays the database user's: it is written into, not replaced.
  writeFileSync(rules, written.replace(/^([^#\n]*)\btrust\s*$/gm, '$1scram-sha-256'));
  await asOwner('postgres', (client) => client.query('select pg_reload_conf()'));
}
