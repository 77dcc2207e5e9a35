-- Where the shell is held: the shop's benches and shelves in versions that never change, and one item of work for
-- whatever is planned and done, with the details of its kind.

create table bench (
  id uuid primary key,
  name text not null check (name <> ''),
  kind text not null check (kind in ('fixture', 'clamps', 'ownFrame', 'stands'))
);

-- Millimetres. What a kind of bench does not have is 0.
create table bench_version (
  id uuid primary key,
  bench_id uuid not null references bench (id),
  number integer not null check (number >= 1),
  rails double precision not null check (rails >= 0),
  pitch double precision not null check (pitch > 0),
  first_hole double precision not null check (first_hole >= 0),
  span double precision not null check (span >= 0),
  beam_width double precision not null check (beam_width >= 0),
  beam_top double precision not null check (beam_top >= 0),
  beams integer not null check (beams >= 0),
  reach double precision not null check (reach >= 0),
  footprint double precision not null check (footprint >= 0),
  note text not null,
  valid_from timestamptz not null,
  unique (bench_id, number)
);

create table shelf_item (
  id uuid primary key,
  bench_version_id uuid not null references bench_version (id),
  kind text not null check (kind in ('piece', 'head', 'clamp', 'stand')),
  code text not null check (code <> ''),
  height double precision not null check (height >= 0),
  count integer not null check (count >= 0),
  travel double precision not null check (travel >= 0),
  thread_pitch double precision check (thread_pitch > 0),
  fits_least double precision check (fits_least >= 0),
  fits_most double precision check (fits_most >= 0),
  clearance double precision not null check (clearance >= 0),
  rating double precision check (rating > 0),
  unique (bench_version_id, code),
  -- A tower has a height.
  check (kind <> 'piece' or height > 0),
  check (fits_least is null or fits_most is null or fits_least <= fits_most)
);

create table work_item (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null check (kind in ('setUp', 'panel')),
  code text not null check (code <> ''),
  name text not null check (name <> ''),
  unique (job_id, id),
  unique (job_id, kind, code)
);

create table work_event (
  id uuid primary key,
  item_id uuid not null references work_item (id),
  job_id uuid,
  kind text not null check (kind in ('ticked', 'unticked', 'adjusted', 'idle', 'carrying', 'checked')),
  -- The part of the item it is about; empty where it is the whole.
  key text not null,
  at timestamptz not null,
  author text not null check (author <> ''),
  reason text not null,
  value double precision,
  check ((kind = 'checked') = (value is not null))
);
create index work_event_of_item on work_event (item_id);

create table set_up (
  id uuid primary key,
  job_id uuid not null references job (id),
  bench_version_id uuid not null references bench_version (id),
  suspension text not null check (suspension in ('off', 'onUnloaded', 'loaded')),
  kilograms double precision check (kilograms > 0),
  centre_x double precision,
  centre_y double precision,
  x double precision not null,
  y double precision not null,
  z double precision not null,
  turn_x double precision not null default 0 check (abs(turn_x) <= 180),
  turn_y double precision not null default 0 check (abs(turn_y) <= 180),
  turn_z double precision not null default 0 check (abs(turn_z) <= 180),
  flange text check (flange in ('has', 'hasNot')),
  line_from_id uuid,
  line_to_id uuid,
  version integer not null check (version >= 1),
  unique (job_id, id),
  foreign key (job_id, id) references work_item (job_id, id),
  foreign key (job_id, line_from_id) references point (job_id, id),
  foreign key (job_id, line_to_id) references point (job_id, id),
  check (line_from_id is null or line_from_id <> line_to_id),
  check ((centre_x is null) = (centre_y is null))
);

create table mount (
  id uuid primary key,
  set_up_id uuid not null,
  job_id uuid,
  ordinal integer not null check (ordinal >= 0),
  point_id uuid,
  name text not null,
  x double precision,
  y double precision,
  z double precision,
  hole integer check (hole >= 0),
  floor double precision,
  head_id uuid references shelf_item (id),
  lift double precision,
  unique (job_id, id),
  unique (set_up_id, point_id),
  foreign key (job_id, set_up_id) references set_up (job_id, id),
  foreign key (job_id, point_id) references point (job_id, id),
  -- It stands somewhere.
  check (point_id is not null or (x is not null and y is not null and z is not null)),
  check ((head_id is null) = (lift is null))
);
create index mount_of_set_up on mount (set_up_id);

create table mount_piece (
  id uuid primary key,
  mount_id uuid not null,
  job_id uuid,
  ordinal integer not null check (ordinal >= 0),
  shelf_item_id uuid not null references shelf_item (id),
  unique (mount_id, ordinal),
  foreign key (job_id, mount_id) references mount (job_id, id)
);

-- A panel that is to be replaced, and the points that leave with it or stay beside it.
create table panel (
  id uuid primary key,
  job_id uuid not null references job (id),
  part text not null check (part <> ''),
  side text not null check (side in ('left', 'centre', 'right')),
  unique (job_id, id),
  foreign key (job_id, id) references work_item (job_id, id)
);

create table panel_point (
  panel_id uuid not null,
  point_id uuid not null,
  job_id uuid,
  fate text not null check (fate in ('goes', 'stays')),
  primary key (panel_id, point_id),
  foreign key (job_id, panel_id) references panel (job_id, id),
  foreign key (job_id, point_id) references point (job_id, id)
);

-- A body on a chassis or platform is two things: the points of the second, and which of the body each meets when the two
-- are bolted together.
create table platform_point (
  point_id uuid primary key,
  job_id uuid not null references job (id),
  meets_id uuid check (meets_id <> point_id),
  unique (job_id, meets_id),
  foreign key (job_id, point_id) references point (job_id, id),
  foreign key (job_id, meets_id) references point (job_id, id)
);

-- A real part that is bolted up as a gauge: its holes are a small reference, lengths taped between them tell whether it
-- is straight, and its readings say how each hole fits a point of the shell.
create table gauge_part (
  id uuid primary key,
  job_id uuid not null references job (id),
  code text not null check (code <> ''),
  name text not null check (name <> ''),
  sd double precision not null check (sd > 0),
  version integer not null check (version >= 1),
  unique (job_id, id),
  unique (job_id, code)
);

create table part_hole (
  id uuid primary key,
  gauge_part_id uuid not null,
  job_id uuid,
  code text not null check (code <> ''),
  x double precision not null,
  y double precision not null,
  z double precision not null,
  clearance double precision not null check (clearance > 0),
  unique (job_id, id),
  unique (gauge_part_id, id),
  unique (gauge_part_id, code),
  foreign key (job_id, gauge_part_id) references gauge_part (job_id, id)
);

create table part_check (
  id uuid primary key,
  gauge_part_id uuid not null,
  job_id uuid,
  from_hole_id uuid not null,
  to_hole_id uuid not null check (to_hole_id <> from_hole_id),
  value double precision not null check (value > 0),
  foreign key (job_id, gauge_part_id) references gauge_part (job_id, id),
  foreign key (gauge_part_id, from_hole_id) references part_hole (gauge_part_id, id),
  foreign key (gauge_part_id, to_hole_id) references part_hole (gauge_part_id, id)
);
create index part_check_of_part on part_check (gauge_part_id);

alter table reading drop constraint reading_fit_check;
alter table reading
  add column part_hole_id uuid,
  add column toward text check (toward in ('front', 'rear', 'left', 'right', 'up', 'down')),
  add foreign key (job_id, part_hole_id) references part_hole (job_id, id),
  add check (fit in ('free', 'tight', 'none', 'centred', 'beside')),
  add check (part_hole_id is null or fit in ('none', 'centred', 'beside')),
  add check (part_hole_id is not null or fit is null or fit in ('free', 'tight', 'none')),
  add check ((fit is not distinct from 'beside') = (toward is not null));

-- A round is read of a shell that stands on something.
alter table round add column set_up_id uuid, add foreign key (job_id, set_up_id) references set_up (job_id, id);

-- Rows that hang on rows of their job carry the job too, taken from what they hang on.
do $$
declare
  owned record;
begin
  for owned in
    select * from (values
      ('work_event', 'work_item', 'item_id'),
      ('mount', 'set_up', 'set_up_id'),
      ('mount_piece', 'mount', 'mount_id'),
      ('panel_point', 'panel', 'panel_id'),
      ('part_hole', 'gauge_part', 'gauge_part_id'),
      ('part_check', 'gauge_part', 'gauge_part_id')) as t (child, owner, key)
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

create trigger append_only before update or delete on work_event
  for each row execute function refuse_change();
create trigger append_only before update or delete on bench_version
  for each row execute function refuse_change();
create trigger append_only before update or delete on shelf_item
  for each row execute function refuse_change();

call keep_in_journal('bench');
call keep_in_journal('bench_version');
call keep_in_journal('shelf_item');
call keep_in_journal('work_item');
call keep_in_journal('work_event');
call keep_in_journal('set_up');
call keep_in_journal('mount');
call keep_in_journal('mount_piece');
call keep_in_journal('panel');
call keep_in_journal('panel_point');
call keep_in_journal('platform_point');
call keep_in_journal('gauge_part');
call keep_in_journal('part_hole');
call keep_in_journal('part_check');
