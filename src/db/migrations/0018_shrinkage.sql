-- What joints shrank; seams laid in turn; cracks and what is put on to stiffen; wheelbases and axles, read last.

alter table work_item drop constraint work_item_kind_check;
alter table work_item
  add check (kind in ('setUp', 'panel', 'stage', 'brace', 'joint', 'pull', 'hung', 'crack', 'stiffener'));

alter table weld_seam
  add column in_turn_with_id uuid check (in_turn_with_id <> id),
  add foreign key (job_id, in_turn_with_id) references weld_seam (job_id, id);

create table weld_mark (
  id uuid primary key,
  seam_id uuid not null,
  job_id uuid,
  runs text not null check (runs in ('along', 'across')),
  before double precision not null check (before > 0),
  cold double precision not null check (cold > 0),
  sd double precision not null check (sd > 0),
  at timestamptz not null,
  author text not null check (author <> ''),
  foreign key (job_id, seam_id) references weld_seam (job_id, id)
);
call carries_job('weld_mark', 'weld_seam', 'seam_id');

create table crack (
  id uuid primary key,
  job_id uuid not null references job (id),
  place text not null check (place <> ''),
  long double precision not null check (long > 0),
  thickness double precision not null check (thickness > 0),
  to_edge boolean not null,
  process text not null check (process in ('mig', 'tig', 'gas')),
  cause text not null,
  version integer not null check (version >= 1),
  foreign key (job_id, id) references work_item (job_id, id)
);

create table stiffener (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null check (kind in ('doubler', 'rib', 'gusset')),
  part text not null check (part <> ''),
  other_part text not null,
  long double precision not null check (long > 0),
  width double precision check (width > 0),
  height double precision check (height > 0),
  thickness double precision not null check (thickness > 0),
  version integer not null check (version >= 1),
  check ((kind = 'gusset') = (other_part <> '')),
  check ((kind = 'gusset') = (width is null)),
  check ((kind = 'rib') = (height is not null)),
  foreign key (job_id, id) references work_item (job_id, id)
);

create table axle_reading (
  id uuid primary key,
  job_id uuid not null references job (id),
  round_id uuid not null,
  left_base double precision not null check (left_base > 0),
  right_base double precision not null check (right_base > 0),
  left_diagonal double precision check (left_diagonal > 0),
  right_diagonal double precision check (right_diagonal > 0),
  front_track double precision not null check (front_track > 0),
  rear_track double precision not null check (rear_track > 0),
  sd double precision not null check (sd > 0),
  most double precision not null check (most > 0),
  at timestamptz not null,
  author text not null check (author <> ''),
  check ((left_diagonal is null) = (right_diagonal is null)),
  foreign key (job_id, round_id) references round (job_id, id)
);
create trigger append_only before update or delete on axle_reading
  for each row execute function refuse_change();

do $$
declare
  kept text;
begin
  foreach kept in array array['weld_mark', 'crack', 'stiffener', 'axle_reading']
  loop
    call keep_in_journal(kept);
  end loop;
end
$$;
