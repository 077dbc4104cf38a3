-- Makes a role the owner of a database and of everything in it, and lets nobody else connect. Run by the cluster's own user in that
-- database, as often as one likes. Variables: name, role, password.
select format('create role %I login', :'role') where not exists (select 1 from pg_roles where rolname = :'role') \gexec
alter role :"role" nosuperuser nocreatedb nocreaterole noreplication password :'password';
alter database :"name" owner to :"role";
revoke all on database :"name" from public;
alter schema public owner to :"role";

-- What an older version made as the cluster's own user.
select format('alter schema %I owner to %I', nspname, :'role') from pg_namespace
  where nspname in ('pgboss', 'drizzle') and nspowner <> (select oid from pg_roles where rolname = :'role') \gexec
select format('alter %s %I.%I owner to %I', case relkind when 'S' then 'sequence' when 'v' then 'view' else 'table' end, nspname, relname, :'role')
  from pg_class join pg_namespace on pg_namespace.oid = relnamespace
  where nspname in ('public', 'pgboss', 'drizzle') and relkind in ('r', 'p', 'S', 'v')
    and relowner <> (select oid from pg_roles where rolname = :'role')
    -- A sequence of a column goes with its table.
    and not exists (select 1 from pg_depend where classid = 'pg_class'::regclass and objid = pg_class.oid and deptype in ('a', 'i') and relkind = 'S') \gexec
select format('alter function %s owner to %I', pg_proc.oid::regprocedure, :'role') from pg_proc
  join pg_namespace on pg_namespace.oid = pronamespace
  where nspname in ('public', 'pgboss', 'drizzle') and proowner <> (select oid from pg_roles where rolname = :'role')
    and not exists (select 1 from pg_depend where classid = 'pg_proc'::regclass and objid = pg_proc.oid and deptype = 'e') \gexec
select format('alter type %I.%I owner to %I', nspname, typname, :'role') from pg_type
  join pg_namespace on pg_namespace.oid = typnamespace
  where nspname in ('public', 'pgboss', 'drizzle') and typtype = 'e' and typowner <> (select oid from pg_roles where rolname = :'role') \gexec
