/**
 * Who may do what in a home's cluster. The role it was made with, ADMIN, is a superuser and is used by scripts alone; the
 * application has a role of its own that owns its database and nothing else.
 */
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';

export const ADMIN = 'tallow';
export const APPLICATION = 'tallow_app';
export const DATABASE = 'tallow';

/**
 * Older homes were used as ADMIN, which then owns what the application made. `reassign owned` refuses, as the system's
 * own things are its as well: so each is handed over by itself. Sequences of columns and indexes go with their tables.
 */
const HAND_OVER = `
do $$
declare thing record;
begin
  for thing in
    select format('alter schema %I owner to ${APPLICATION}', nspname) as does from pg_namespace
      where nspowner = '${ADMIN}'::regrole and nspname !~ '^pg_' and nspname <> 'information_schema'
    union all
    select format('alter table %I.%I owner to ${APPLICATION}', nspname, relname)
      from pg_class join pg_namespace on pg_namespace.oid = relnamespace
      where relowner = '${ADMIN}'::regrole and relkind in ('r', 'p', 'v', 'm', 'S')
        and nspname !~ '^pg_' and nspname <> 'information_schema'
        and not exists (select from pg_depend where objid = pg_class.oid and relkind = 'S' and deptype in ('a', 'i'))
    union all
    select format('alter routine %s owner to ${APPLICATION}', pg_proc.oid::regprocedure)
      from pg_proc join pg_namespace on pg_namespace.oid = pronamespace
      where proowner = '${ADMIN}'::regrole and nspname !~ '^pg_' and nspname <> 'information_schema'
    union all
    select format('alter type %I.%I owner to ${APPLICATION}', nspname, typname)
      from pg_type join pg_namespace on pg_namespace.oid = typnamespace
      where typowner = '${ADMIN}'::regrole and typtype in ('e', 'd')
        and nspname !~ '^pg_' and nspname <> 'information_schema'
  loop
    execute thing.does;
  end loop;
end $$;`;

/**
 * Makes the application's role and database where they are missing, and hands over what is not its own yet.
 * @param bin folder of PostgreSQL's programs. @param admin,password those of the two roles, both without quotes.
 */
export function ensureRoles(bin, port, { admin, application }) {
  const run = (database, sql) =>
    execFileSync(
      join(bin, 'psql'),
      ['-h', '127.0.0.1', '-p', String(port), '-U', ADMIN, '-d', database, '-v', 'ON_ERROR_STOP=1', '-qAtX'],
      // The passwords go in by the input: arguments can be read by everybody on the machine.
      { input: sql, env: { ...process.env, PGPASSWORD: admin }, stdio: ['pipe', 'pipe', 'inherit'] },
    )
      .toString()
      .trim();
  const known = run('postgres', `select 1 from pg_roles where rolname = '${APPLICATION}';`) === '1';
  run(
    'postgres',
    `${known ? 'alter' : 'create'} role ${APPLICATION} login nosuperuser nocreatedb nocreaterole noreplication
       password '${application}';`,
  );
  const there = run('postgres', `select 1 from pg_database where datname = '${DATABASE}';`) === '1';
  run('postgres', `${there ? 'alter' : 'create'} database ${DATABASE} ${there ? 'owner to' : 'owner'} ${APPLICATION};`);
  run(DATABASE, HAND_OVER);
}
