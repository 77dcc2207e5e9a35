-- How the joints of a cut panel are welded up again, and the stretches of each seam where something is different.

create table weld_seam (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null check (kind in ('plug', 'spot', 'butt', 'lap', 'braze', 'bond')),
  process text check (process in ('mig', 'tig', 'gas', 'resistance')),
  long double precision not null check (long > 0),
  flange double precision check (flange > 0),
  pitch double precision check (pitch > 0),
  first_point_id uuid,
  last_point_id uuid check (last_point_id <> first_point_id),
  free_end text not null check (free_end in ('both', 'first', 'last', 'none')),
  school text not null check (school in ('coolest', 'centre', 'oneEnd', 'backStep', 'inTurn')),
  open_for double precision check (open_for > 0),
  clamped_for double precision check (clamped_for > 0),
  version integer not null check (version >= 1),
  unique (job_id, id),
  foreign key (job_id, id) references joint (job_id, id),
  foreign key (job_id, first_point_id) references point (job_id, id),
  foreign key (job_id, last_point_id) references point (job_id, id)
);

create table weld_stretch (
  id uuid primary key,
  seam_id uuid not null,
  job_id uuid,
  what text not null check (what in ('corner', 'double', 'void', 'unreachable', 'brass', 'lead')),
  starts double precision not null check (starts >= 0),
  ends double precision not null check (ends >= starts),
  foreign key (job_id, seam_id) references weld_seam (job_id, id)
);

create function job_of_weld_stretch() returns trigger language plpgsql as $f$
  begin
    select job_id into new.job_id from weld_seam where id = new.seam_id;
    return new;
  end
  $f$;
create trigger job_of_owner before insert or update on weld_stretch
  for each row execute function job_of_weld_stretch();

call keep_in_journal('weld_seam');
call keep_in_journal('weld_stretch');
