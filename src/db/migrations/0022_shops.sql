-- Several shops in one database: every row belongs to a shop, every key carries it, and on a server the database itself
-- shows a shop its own rows alone. A data folder has one shop.

create table shop (
  id uuid primary key default gen_random_uuid(),
  number integer not null unique generated always as identity,
  name text not null unique check (trim(name) <> ''),
  -- As whom its programs come to the database: each shop has a role of its own, so no statement they send can be another's.
  role name not null unique,
  -- Where its programs tell each other what changes: a name nobody else can guess.
  channel text not null unique default 'vinkel_' || replace(gen_random_uuid()::text, '-', '')
);
insert into shop (name, role) values ('Workshop', current_user);
create policy its_own on shop for select using (role = current_user);
alter table shop enable row level security;

-- Whose rows these are: the shop of the role that asks; null where it is no shop's. Of this language the server keeps the plan:
-- it is asked for every table of a statement.
create function shop_here() returns uuid language plpgsql stable as $$
begin
  return (select id from shop where role = current_user);
end
$$;

-- Gives every table the shop of its rows, and shows a shop its own alone; for each new table of a later migration too.
create procedure keep_apart(kept text) language plpgsql as $$
begin
  execute format('create policy of_the_shop on %I using (shop_id = (select shop_here()))', kept);
  execute format('alter table %I enable row level security', kept);
end
$$;

do $$
declare
  first uuid := (select id from shop);
  kept record;
  rule record;
begin
  create temporary table rules on commit drop as
  select conrelid::regclass as kept, conname as name, contype as kind, pg_get_constraintdef(oid) as says
  from pg_constraint
  where connamespace = 'public'::regnamespace and contype in ('f', 'p', 'u')
    and conrelid::regclass::text not in ('migration', 'shop', 'tries');

  for rule in select * from rules where kind = 'f' loop
    execute format('alter table %s drop constraint %I', rule.kept, rule.name);
  end loop;
  for rule in select * from rules where kind <> 'f' loop
    execute format('alter table %s drop constraint %I', rule.kept, rule.name);
  end loop;

  for kept in
    select tablename as name from pg_tables
    where schemaname = 'public' and tablename not in ('migration', 'shop') order by tablename
  loop
    execute format('alter table %I add column shop_id uuid not null default %L references shop (id)', kept.name, first);
    execute format('alter table %I alter column shop_id set default shop_here()', kept.name);
    call keep_apart(kept.name);
  end loop;

  -- `primary key (id)` becomes `primary key (id, shop_id)`: two shops may have brought in the same job.
  for rule in select * from rules where kind <> 'f' loop
    execute format('alter table %s add constraint %I %s', rule.kept, rule.name,
      regexp_replace(rule.says, '\(([^)]*)\)', '(\1, shop_id)'));
  end loop;
  -- `foreign key (job_id) references job(id)` becomes one of both: no row names another shop's.
  for rule in select * from rules where kind = 'f' loop
    execute format('alter table %s add constraint %I %s', rule.kept, rule.name,
      regexp_replace(rule.says, '\(([^)]*)\) REFERENCES ([^(]*)\(([^)]*)\)', '(\1, shop_id) REFERENCES \2(\3, shop_id)'));
  end loop;
end
$$;

-- Read by their shop alone.
do $$
declare
  listed text;
begin
  foreach listed in array array['job', 'instrument', 'instrument_version', 'bench', 'bench_version', 'shelf_item', 'section',
    'person', 'closed_day']
  loop
    execute format('create index %1$s_of_shop on %1$I (shop_id)', listed);
  end loop;
end
$$;

alter table journal_mark add primary key (shop_id);

-- What the list of jobs asks of each.
create index reading_of_job on reading (job_id, taken_at) include (shop_id);
create index signed_record_of_job on signed_record (job_id);

-- Whoever counts tries names the shop in the key, for that is what the package that counts them tells rows apart by.
delete from tries;
alter table tries add check (starts_with(key, shop_id::text));

-- What a shop lets the others have: a chart, a body's structure or a bench, as the file it would hand over.
create table shared (
  id uuid not null,
  shop_id uuid not null default shop_here() references shop (id),
  kind text not null check (kind in ('chart', 'structure', 'bench')),
  name text not null check (trim(name) <> ''),
  -- The shop's name as it was then: no shop sees the others themselves.
  of_shop text not null,
  file jsonb not null,
  at timestamptz not null,
  primary key (id, shop_id),
  unique (shop_id, kind, name)
);
call keep_apart('shared');
create policy of_all on shared for select using (true);

-- Who shared it: no other shop is told the names of people.
create table shared_by (
  shared_id uuid not null,
  shop_id uuid not null default shop_here() references shop (id),
  author text not null check (author <> ''),
  person_id uuid not null,
  primary key (shared_id, shop_id),
  foreign key (shared_id, shop_id) references shared (id, shop_id) on delete cascade
);
call keep_apart('shared_by');
