-- The shell as a structure, what is to be cut of it in which order, and what holds meanwhile. Braces become items of work,
-- and what happens to them its events.

create table section (
  id uuid primary key,
  name text not null check (name <> ''),
  width double precision not null check (width > 0),
  height double precision not null check (height > 0),
  wall double precision not null check (wall > 0 and 2 * wall < least(width, height)),
  material text not null check (material in ('mildSteel', 'highStrength')),
  stock double precision check (stock >= 0)
);

insert into section (id, name, width, height, wall, material, stock) values
  ('00000000-0000-4000-8000-000000000501', 'square tube 25×25×2', 25, 25, 2, 'mildSteel', 6000),
  ('00000000-0000-4000-8000-000000000502', 'square tube 30×30×2', 30, 30, 2, 'mildSteel', 6000),
  ('00000000-0000-4000-8000-000000000503', 'square tube 40×40×3', 40, 40, 3, 'mildSteel', 6000);

alter table work_item drop constraint work_item_kind_check;
alter table work_item
  add check (kind in ('setUp', 'panel', 'stage', 'brace', 'joint')),
  add column version integer not null default 1 check (version >= 1);
alter table work_item alter column version drop default;

alter table work_event drop constraint work_event_kind_check, drop constraint work_event_check;
alter table work_event
  add check (kind in ('ticked', 'unticked', 'adjusted', 'idle', 'carrying', 'checked', 'planned', 'fitted', 'removed',
    'passed', 'turned')),
  add check ((kind in ('checked', 'turned')) = (value is not null));

-- Stages: what comes out together.
create table stage (
  id uuid primary key,
  job_id uuid not null references job (id),
  ordinal integer not null check (ordinal >= 0),
  version integer not null check (version >= 1),
  unique (job_id, id),
  foreign key (job_id, id) references work_item (job_id, id)
);

alter table panel
  add column stage_id uuid,
  add column choice text check (choice in ('patch', 'partPanel', 'wholePanel', 'remade')),
  add column reason text not null default '',
  add column joined_at text not null default '',
  add column hours double precision check (hours > 0),
  add column price double precision check (price >= 0),
  add column owners_word text not null default '',
  add column stressed boolean not null default false,
  add column version integer not null default 1 check (version >= 1),
  add foreign key (job_id, stage_id) references stage (job_id, id);

-- Braces as items of work: what was told of a section in words stays words, in the note.
insert into work_item (id, job_id, kind, code, name, version)
  select id, job_id, 'brace', code, code, 1 from brace;
insert into work_event (id, item_id, kind, key, at, author, reason)
  select id, brace_id, kind, '', at, author, note from brace_event;
drop table brace_event;
alter table withdrawal disable trigger user;
alter table withdrawal drop constraint withdrawal_table_name_check;
update withdrawal set table_name = 'work_item' where table_name = 'brace';
update withdrawal set table_name = 'work_event' where table_name = 'brace_event';
alter table withdrawal enable trigger user;
alter table withdrawal add check (table_name in
  ('work_item', 'work_event', 'pull', 'pull_event', 'step_event', 'seam', 'log_entry', 'part_tag'));

alter table brace disable trigger user;
update brace set note = concat_ws('; ', nullif(section, ''), nullif(note, ''));
alter table brace enable trigger user;
alter table brace
  drop column code,
  drop column section,
  add column section_id uuid references section (id),
  add column from_end text not null default 'doubled' check (from_end in ('doubled', 'flange', 'skin', 'bolted')),
  add column to_end text not null default 'doubled' check (to_end in ('doubled', 'flange', 'skin', 'bolted')),
  add column from_off double precision not null default 0,
  add column to_off double precision not null default 0,
  add column thread_pitch double precision check (thread_pitch <> 0),
  add column stage_in_id uuid,
  add column stage_out_id uuid,
  add foreign key (job_id, id) references work_item (job_id, id),
  add foreign key (job_id, stage_in_id) references stage (job_id, id),
  add foreign key (job_id, stage_out_id) references stage (job_id, id);
alter table brace alter column from_end drop default, alter column to_end drop default;

create table structure (
  id uuid primary key,
  job_id uuid not null references job (id),
  edition integer not null check (edition >= 1),
  template text not null
    check (template in ('twoDoor', 'fourDoor', 'estate', 'open', 'pickupCab', 'onPlatform', 'lines', 'file')),
  at timestamptz not null,
  author text not null check (author <> ''),
  unique (job_id, id),
  unique (job_id, edition)
);

create table node (
  id uuid primary key,
  structure_id uuid not null,
  job_id uuid,
  code text not null check (code <> ''),
  name text not null,
  x double precision not null,
  y double precision not null,
  z double precision not null,
  point_id uuid,
  unique (structure_id, id),
  unique (structure_id, code),
  unique (structure_id, point_id),
  foreign key (job_id, structure_id) references structure (job_id, id),
  foreign key (job_id, point_id) references point (job_id, id)
);

create table member (
  id uuid primary key,
  structure_id uuid not null,
  job_id uuid,
  code text not null check (code <> ''),
  name text not null,
  from_node_id uuid not null,
  to_node_id uuid not null check (to_node_id <> from_node_id),
  width double precision not null check (width > 0),
  height double precision not null check (height > 0),
  wall double precision not null check (wall > 0 and 2 * wall < least(width, height)),
  condition double precision not null check (condition > 0 and condition <= 1),
  unique (structure_id, code),
  foreign key (job_id, structure_id) references structure (job_id, id),
  foreign key (structure_id, from_node_id) references node (structure_id, id),
  foreign key (structure_id, to_node_id) references node (structure_id, id)
);

create table shear_panel (
  id uuid primary key,
  structure_id uuid not null,
  job_id uuid,
  code text not null check (code <> ''),
  name text not null,
  a_node_id uuid not null,
  b_node_id uuid not null,
  c_node_id uuid not null,
  d_node_id uuid not null,
  thickness double precision not null check (thickness > 0),
  condition double precision not null check (condition > 0 and condition <= 1),
  unique (structure_id, code),
  foreign key (job_id, structure_id) references structure (job_id, id),
  foreign key (structure_id, a_node_id) references node (structure_id, id),
  foreign key (structure_id, b_node_id) references node (structure_id, id),
  foreign key (structure_id, c_node_id) references node (structure_id, id),
  foreign key (structure_id, d_node_id) references node (structure_id, id),
  check (a_node_id not in (b_node_id, c_node_id, d_node_id) and b_node_id not in (c_node_id, d_node_id)
    and c_node_id <> d_node_id)
);

create table press_test (
  id uuid primary key,
  job_id uuid not null references job (id),
  from_point_id uuid not null,
  to_point_id uuid not null check (to_point_id <> from_point_id),
  force double precision not null check (force > 0),
  opened double precision not null check (opened > 0),
  sd double precision not null check (sd > 0),
  at timestamptz not null,
  author text not null check (author <> ''),
  foreign key (job_id, from_point_id) references point (job_id, id),
  foreign key (job_id, to_point_id) references point (job_id, id)
);

create table panel_part (
  panel_id uuid not null,
  code text not null check (code <> ''),
  job_id uuid,
  share double precision not null check (share > 0 and share <= 1),
  primary key (panel_id, code),
  foreign key (job_id, panel_id) references panel (job_id, id)
);

create table joint (
  id uuid primary key,
  job_id uuid not null references job (id),
  panel_id uuid not null,
  beside text not null check (beside <> ''),
  kind text not null check (kind in ('spots', 'plugs', 'seam', 'brazed', 'leaded', 'bonded', 'bolted')),
  thickness_a double precision check (thickness_a > 0),
  thickness_b double precision check (thickness_b > 0),
  factory_spots integer check (factory_spots >= 0),
  version integer not null check (version >= 1),
  unique (job_id, id),
  foreign key (job_id, id) references work_item (job_id, id),
  foreign key (job_id, panel_id) references panel (job_id, id)
);

create table cut_line (
  id uuid primary key,
  panel_id uuid not null,
  job_id uuid,
  label text not null check (label <> ''),
  edge text not null check (edge <> ''),
  distance double precision not null,
  read_back double precision,
  kerf double precision check (kerf >= 0),
  gap double precision check (gap >= 0),
  unique (panel_id, label),
  foreign key (job_id, panel_id) references panel (job_id, id)
);

-- Shapes kept flat, to mark metal by.
create table template (
  id uuid primary key,
  job_id uuid not null references job (id),
  panel_id uuid,
  name text not null check (name <> ''),
  source text not null check (source in ('card', 'paper', 'goodPart')),
  taken_from text not null,
  face text not null check (face in ('outside', 'inside')),
  mirrored boolean not null,
  version integer not null check (version >= 1),
  unique (job_id, id),
  foreign key (job_id, panel_id) references panel (job_id, id)
);

create table template_point (
  id uuid primary key,
  template_id uuid not null,
  job_id uuid,
  ordinal integer not null check (ordinal >= 0),
  x double precision not null,
  y double precision not null,
  unique (template_id, ordinal),
  foreign key (job_id, template_id) references template (job_id, id)
);

create table keep_out (
  id uuid primary key,
  job_id uuid not null references job (id),
  name text not null check (name <> ''),
  panel_id uuid,
  min_x double precision not null,
  min_y double precision not null,
  min_z double precision not null,
  max_x double precision not null check (max_x >= min_x),
  max_y double precision not null check (max_y >= min_y),
  max_z double precision not null check (max_z >= min_z),
  move_x double precision not null,
  move_y double precision not null,
  move_z double precision not null,
  foreign key (job_id, panel_id) references panel (job_id, id)
);

create table advice_taken (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null check (kind in ('brace', 'stage', 'gate')),
  key text not null,
  basis text not null,
  shown text not null,
  choice text not null check (choice in ('taken', 'declined', 'allowed')),
  reason text not null,
  at timestamptz not null,
  author text not null check (author <> '')
);
create index advice_taken_of_job on advice_taken (job_id);

create table removal_check (
  id uuid primary key,
  job_id uuid not null references job (id),
  after text not null check (after in ('cut', 'bracesOut', 'offBench', 'onWheels')),
  stage_id uuid,
  door text check (door in ('closes', 'drags', 'springsBack')),
  front_gap double precision,
  rear_gap double precision,
  at timestamptz not null,
  author text not null check (author <> ''),
  unique (job_id, id),
  foreign key (job_id, stage_id) references stage (job_id, id),
  check ((after = 'cut') = (stage_id is not null))
);

create table removal_reading (
  id uuid primary key,
  check_id uuid not null,
  job_id uuid,
  from_point_id uuid not null,
  to_point_id uuid not null check (to_point_id <> from_point_id),
  value double precision not null check (value > 0),
  instrument_version_id uuid not null references instrument_version (id),
  foreign key (job_id, check_id) references removal_check (job_id, id),
  foreign key (job_id, from_point_id) references point (job_id, id),
  foreign key (job_id, to_point_id) references point (job_id, id)
);
create index removal_reading_of_check on removal_reading (check_id);

-- Rows that hang on rows of their job carry the job too, taken from what they hang on.
do $$
declare
  owned record;
begin
  for owned in
    select * from (values
      ('node', 'structure', 'structure_id'),
      ('member', 'structure', 'structure_id'),
      ('shear_panel', 'structure', 'structure_id'),
      ('panel_part', 'panel', 'panel_id'),
      ('cut_line', 'panel', 'panel_id'),
      ('template_point', 'template', 'template_id'),
      ('removal_reading', 'removal_check', 'check_id')) as t (child, owner, key)
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

do $$
declare
  kept text;
begin
  foreach kept in array array['section', 'structure', 'node', 'member', 'shear_panel', 'press_test', 'advice_taken',
    'removal_check', 'removal_reading']
  loop
    execute format('create trigger append_only before update or delete on %I
      for each row execute function refuse_change()', kept);
  end loop;
  foreach kept in array array['section', 'stage', 'structure', 'node', 'member', 'shear_panel', 'press_test',
    'panel_part', 'joint', 'cut_line', 'template', 'template_point', 'keep_out', 'advice_taken', 'removal_check', 'removal_reading']
  loop
    call keep_in_journal(kept);
  end loop;
end
$$;
