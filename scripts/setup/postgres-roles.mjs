/** Owner of the cluster; the application never goes in as that one. */
export const ADMIN = "keen_pebble";

/** What the application goes in as, and the one thing that it owns. */
export const APPLICATION = { role: "keen_pebble_app", database: "keen_pebble" };

/** Gives everything in a database that is not the system's to the application's role, in one go. */
const GIVE_ALL = `do $$
  declare thing record;
  begin
    for thing in select nspname as name from pg_namespace where nspname !~ '^pg_' and nspname <> 'information_schema' loop
      execute format('alter schema %I owner to ${APPLICATION.role}', thing.name);
    end loop;
    -- Sequences and indexes go with the tables that own them.
    for thing in select n.nspname as space, c.relname as name, c.relkind as kind from pg_class c join pg_namespace n on n.oid = c.relnamespace
      where n.nspname !~ '^pg_' and n.nspname <> 'information_schema' and c.relkind in ('r', 'p', 'v', 'm') and pg_get_userbyid(c.relowner) <> '${APPLICATION.role}' loop
      execute format('alter table %I.%I owner to ${APPLICATION.role}', thing.space, thing.name);
    end loop;
    for thing in select n.nspname as space, t.typname as name from pg_type t join pg_namespace n on n.oid = t.typnamespace
      where n.nspname !~ '^pg_' and n.nspname <> 'information_schema' and t.typtype in ('e', 'd') and pg_get_userbyid(t.typowner) <> '${APPLICATION.role}' loop
      execute format('alter type %I.%I owner to ${APPLICATION.role}', thing.space, thing.name);
    end loop;
    for thing in select p.oid::regprocedure::text as name from pg_proc p join pg_namespace n on n.oid = p.pronamespace
      where n.nspname !~ '^pg_' and n.nspname <> 'information_schema' and p.prokind = 'f' and pg_get_userbyid(p.proowner) <> '${APPLICATION.role}' loop
      execute format('alter function %s owner to ${APPLICATION.role}', thing.name);
    end loop;
  end $$`;

/**
 * Sees to it that the application's role and database are there, and that the role owns its database and nothing else.
 * An older version kept everything in the database `postgres` and as the cluster's owner: that becomes the application's.
 * @param {import("./postgres.mjs").Postgres} postgres started
 */
export async function ensureApplicationRole(postgres) {
  await within(postgres.adminUrl(), async (admin) => {
    const has = async (text, value) => (await admin.query(text, [value])).rows.length > 0;
    const { role, database } = APPLICATION;
    if (!(await has("select 1 from pg_roles where rolname = $1", role))) await admin.query(`create role ${role}`);
    await admin.query(
      `alter role ${role} login nosuperuser nocreatedb nocreaterole noreplication nobypassrls password '${postgres.passwords.application}'`,
    );
    const hasDatabase = (name) => has("select 1 from pg_database where datname = $1", name);
    if (!(await hasDatabase(database))) {
      if ((await hasDatabase("postgres")) && (await holdsWorlds(postgres)))
        await admin.query(`alter database postgres rename to ${database}`);
      else await admin.query(`create database ${database} template template0`);
    }
    await admin.query(`alter database ${database} owner to ${role}`);
    for (const name of [database, "template1", "postgres"])
      if (await hasDatabase(name)) await admin.query(`revoke all on database ${name} from public`);
  });
  await within(postgres.adminUrl(APPLICATION.database), (admin) => admin.query(GIVE_ALL));
}

/** Whether the database in which an older version kept everything is one. */
function holdsWorlds(postgres) {
  return within(
    postgres.adminUrl("postgres"),
    async (admin) => (await admin.query("select to_regclass('public.worlds') as worlds")).rows[0].worlds !== null,
  );
}

async function within(url, what) {
  // Only there once the packages are installed.
  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 10_000 });
  await client.connect();
  try {
    return await what(client);
  } finally {
    await client.end();
  }
}
