-- People: what somebody may do, whom of the shop's people a row's author is, what they prove it with, where they are known.

alter table person
  add column roles text[] not null default '{}' check (roles <@ array['measure', 'plan', 'sign']),
  add column owner boolean not null default false;
alter table person alter column roles drop default, alter column owner drop default;

-- Rows that are signed carry the person besides the name they signed with.
do $$
declare
  signed record;
begin
  for signed in
    select table_name, column_name from information_schema.columns
    where table_schema = 'public' and column_name in ('author', 'signed_by') order by table_name
  loop
    execute format('alter table %I add column person_id uuid', signed.table_name);
    -- Names used so far become people, who may do what they did so far. The identity is of the name: the same wherever this runs.
    execute format('insert into person
        (id, name, kind, days, starts, ends, noise_starts, noise_ends, retired_at, roles, owner)
      select md5(''vinkel person '' || lower(used.name))::uuid, max(used.name), ''person'', ''{1,2,3,4,5}'', 480, 990, 480, 960,
        null, ''{measure,plan,sign}'', false
      from (select distinct trim(%I) as name from %I) as used
      where not exists (select from person where person.kind = ''person'' and lower(person.name) = lower(used.name))
      group by lower(used.name)', signed.column_name, signed.table_name);
    execute format('alter table %I disable trigger user', signed.table_name);
    execute format('update %I set person_id = (
        select id from person where kind = ''person'' and lower(name) = lower(trim(%I)) order by retired_at desc nulls first, id limit 1)',
      signed.table_name, signed.column_name);
    execute format('alter table %I enable trigger user', signed.table_name);
  end loop;
end
$$;
update person set roles = '{measure,plan,sign}' where kind = 'person';

alter table signed_record add column hash text check (hash ~ '^[0-9a-f]{64}$');

-- What somebody proves who they are with: salted hashes alone. In no archive, no backup and no journal.
create table credential (
  person_id uuid primary key references person (id),
  passphrase text not null check (passphrase like '$argon2id$%'),
  pin text check (pin like '$argon2id$%'),
  changed_at timestamptz not null
);

-- A browser in which somebody said their passphrase: who is known there, and who works there now.
create table session (
  id uuid primary key,
  token_hash text not null unique,
  device_id uuid,
  person_id uuid not null references person (id),
  known uuid[] not null,
  made_at timestamptz not null
);
