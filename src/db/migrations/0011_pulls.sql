-- Pulls become items of work and what happens to them their events; what holds the shell is a hold of an item; each stroke keeps
-- the mark that was shown before it.

alter table work_item drop constraint work_item_kind_check;
alter table work_item add check (kind in ('setUp', 'panel', 'stage', 'brace', 'joint', 'pull'));

alter table work_event drop constraint work_event_kind_check;
alter table work_event add check (kind in ('ticked', 'unticked', 'adjusted', 'idle', 'carrying', 'checked', 'planned',
  'fitted', 'removed', 'passed', 'turned', 'cleared', 'loaded', 'released', 'done', 'abandoned'));

insert into work_item (id, job_id, kind, code, name, version)
  select id, job_id, 'pull', code, code, 1 from pull;
insert into work_event (id, item_id, kind, key, at, author, reason)
  select id, pull_id, kind, '', at, author, note from pull_event;
drop table pull_event;
alter table withdrawal disable trigger user;
alter table withdrawal drop constraint withdrawal_table_name_check;
update withdrawal set table_name = 'work_item' where table_name = 'pull';
update withdrawal set table_name = 'work_event' where table_name = 'pull_event';
alter table withdrawal enable trigger user;
alter table withdrawal add check (table_name in
  ('work_item', 'work_event', 'step_event', 'seam', 'log_entry', 'part_tag'));

alter table pull
  drop column code,
  add column against_point_id uuid check (against_point_id <> point_id),
  add column dir_x double precision,
  add column dir_y double precision,
  add column dir_z double precision,
  add column attach text check (attach in ('plate', 'tab', 'clamp', 'hook', 'strap', 'bolt', 'jack')),
  add column chain double precision check (chain > 0),
  add column rated double precision check (rated > 0),
  add column ram_area double precision check (ram_area > 0),
  add column together text not null default '',
  add check (num_nulls(dir_x, dir_y, dir_z) in (0, 3)),
  add check (dir_x is null or dir_x <> 0 or dir_y <> 0 or dir_z <> 0),
  add foreign key (job_id, id) references work_item (job_id, id),
  add foreign key (job_id, against_point_id) references point (job_id, id);
alter table pull alter column together drop default;

alter table advice_taken drop constraint advice_taken_kind_check;
alter table advice_taken add check (kind in ('brace', 'stage', 'gate', 'pull'));

create table stroke (
  id uuid primary key,
  pull_id uuid not null,
  job_id uuid,
  ordinal integer not null check (ordinal >= 0),
  target double precision not null,
  rest double precision not null,
  plus_minus double precision not null check (plus_minus > 0),
  at timestamptz not null,
  author text not null check (author <> ''),
  foreign key (job_id, pull_id) references pull (job_id, id)
);
create index stroke_of_pull on stroke (pull_id);

create table hold (
  id uuid primary key,
  item_id uuid not null,
  job_id uuid,
  point_id uuid not null,
  kind text not null check (kind in ('clamp', 'head', 'chain', 'bolt', 'weld', 'stand')),
  rating double precision check (rating > 0),
  unique (item_id, point_id),
  foreign key (job_id, item_id) references work_item (job_id, id),
  foreign key (job_id, point_id) references point (job_id, id)
);
insert into hold (id, item_id, job_id, point_id, kind, rating)
  select id, pull_id, job_id, point_id, kind, rating from pull_hold;
drop table pull_hold;

-- Rows that hang on rows of their job carry the job too, taken from what they hang on.
do $$
declare
  owned record;
begin
  for owned in
    select * from (values ('stroke', 'pull', 'pull_id'), ('hold', 'work_item', 'item_id')) as t (child, owner, key)
  loop
    execute format('create function job_of_%1$s() returns trigger language plpgsql as $f$
      begin
        select job_id into new.job_id from %2$I where id = new.%3$I;
        return new;
      end
      $f$', owned.child, owned.owner, owned.key);
    execute format('create trigger job_of_owner before insert or update on %1$I
      for each row execute function job_of_%1$s()', owned.child);
  end loop;
end
$$;

create trigger append_only before update or delete on stroke
  for each row execute function refuse_change();
call keep_in_journal('stroke');
call keep_in_journal('hold');
