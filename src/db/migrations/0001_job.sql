-- The whole job: shell, chart, rounds of measuring, bracing, pulling, the ladder and the log.
-- Lengths are millimetres, temperatures degrees Celsius, times UTC.
-- Identities are UUIDs made by the client, so that a row keeps its identity through the journal,
-- an export and an import. Runs on PGlite and on PostgreSQL 15.

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception '% is append-only: a correction is a new row', tg_table_name
    using errcode = 'restrict_violation';
end
$$;

create table job (
  id uuid primary key,
  name text not null check (name <> ''),
  shell text not null,
  identity_number text not null,
  owner text not null,
  shop text not null,
  driver_side text not null check (driver_side in ('left', 'right')),
  bench text not null,
  note text not null,
  started_at timestamptz not null,
  version integer not null check (version >= 1)
);

-- Instruments belong to the shop, not to a job. A version is never changed: a reading keeps the
-- figures its instrument had when it was taken.
create table instrument (
  id uuid primary key,
  name text not null check (name <> ''),
  kind text not null
);

create table instrument_version (
  id uuid primary key,
  instrument_id uuid not null references instrument (id),
  number integer not null check (number >= 1),
  sd_constant double precision not null check (sd_constant > 0),
  sd_per_metre double precision not null check (sd_per_metre >= 0),
  zero_offset double precision not null,
  start_mark double precision not null,
  steel boolean not null,
  note text not null,
  valid_from timestamptz not null,
  unique (instrument_id, number)
);

create table point (
  id uuid primary key,
  job_id uuid not null references job (id),
  code text not null check (code <> ''),
  name text not null,
  side text not null check (side in ('left', 'right', 'centre')),
  hole_diameter double precision check (hole_diameter > 0),
  version integer not null check (version >= 1),
  unique (job_id, code),
  unique (job_id, id)
);

create table dimension (
  id uuid primary key,
  job_id uuid not null references job (id),
  code text not null check (code <> ''),
  name text not null,
  from_point_id uuid not null,
  to_point_id uuid not null,
  measure text not null check (measure in ('tip', 'level')),
  version integer not null check (version >= 1),
  unique (job_id, code),
  check (from_point_id <> to_point_id),
  foreign key (job_id, from_point_id) references point (job_id, id),
  foreign key (job_id, to_point_id) references point (job_id, id)
);

create table member_line (
  id uuid primary key,
  job_id uuid not null references job (id),
  from_point_id uuid not null,
  to_point_id uuid not null,
  foreign key (job_id, from_point_id) references point (job_id, id) on delete cascade,
  foreign key (job_id, to_point_id) references point (job_id, id) on delete cascade
);

create table seam (
  id uuid primary key,
  job_id uuid not null references job (id),
  code text not null check (code <> ''),
  name text not null,
  side text not null check (side in ('left', 'right', 'centre')),
  pairing text not null,
  version integer not null check (version >= 1),
  unique (job_id, code)
);

create table seam_station (
  id uuid primary key,
  seam_id uuid not null references seam (id),
  number integer not null check (number between 1 and 99),
  name text not null,
  unique (seam_id, number)
);

create table feature (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null check (kind in ('mount', 'edge')),
  code text not null check (code <> ''),
  name text not null,
  unique (job_id, code)
);

create table shell_state (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null,
  note text not null,
  reached_at timestamptz not null
);

create table support (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null,
  suspension text not null check (suspension in ('off', 'onUnloaded', 'loaded')),
  note text not null
);

create table round (
  id uuid primary key,
  job_id uuid not null references job (id),
  number integer not null check (number >= 1),
  name text not null check (name <> ''),
  state_id uuid not null references shell_state (id),
  support_id uuid not null references support (id),
  instrument_version_id uuid not null references instrument_version (id),
  temperature double precision,
  author text not null check (author <> ''),
  started_at timestamptz not null,
  closed_at timestamptz,
  version integer not null check (version >= 1),
  unique (job_id, number)
);

create table round_control (
  round_id uuid not null references round (id),
  point_id uuid not null references point (id),
  primary key (round_id, point_id)
);

-- What is right, per point and per dimension. A reading never points here.
create table reference (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null,
  name text not null check (name <> ''),
  source text not null,
  trust double precision not null check (trust >= 0),
  rank integer not null check (rank >= 0),
  round_id uuid references round (id),
  created_at timestamptz not null
);

create table reference_point (
  id uuid primary key,
  reference_id uuid not null references reference (id),
  point_id uuid not null references point (id),
  x double precision not null,
  y double precision not null,
  z double precision not null,
  tolerance double precision not null check (tolerance > 0),
  version integer not null check (version >= 1),
  unique (reference_id, point_id)
);

create table reference_dimension (
  id uuid primary key,
  reference_id uuid not null references reference (id),
  dimension_id uuid not null references dimension (id),
  value double precision not null check (value > 0),
  tolerance double precision not null check (tolerance > 0),
  version integer not null check (version >= 1),
  unique (reference_id, dimension_id)
);

create table reference_station (
  id uuid primary key,
  reference_id uuid not null references reference (id),
  station_id uuid not null references seam_station (id),
  quantity text not null check (quantity in ('gap', 'flush')),
  value double precision not null,
  tolerance double precision not null check (tolerance > 0),
  version integer not null check (version >= 1),
  unique (reference_id, station_id, quantity)
);

create table pull (
  id uuid primary key,
  job_id uuid not null references job (id),
  code text not null check (code <> ''),
  point_id uuid not null references point (id),
  round_id uuid not null references round (id),
  aim_x double precision not null,
  aim_y double precision not null,
  aim_z double precision not null,
  held_at text not null,
  note text not null,
  version integer not null check (version >= 1),
  unique (job_id, code)
);

create table pull_event (
  id uuid primary key,
  pull_id uuid not null references pull (id),
  kind text not null check (kind in ('planned', 'loaded', 'released', 'done', 'abandoned')),
  at timestamptz not null,
  author text not null check (author <> ''),
  note text not null
);

-- One row a number. The subject is a point, a pair, a station of a seam, or a mount or edge.
create table reading (
  id uuid primary key,
  line_id uuid not null,
  round_id uuid not null references round (id),
  sequence integer not null,
  instrument_version_id uuid not null references instrument_version (id),
  author text not null check (author <> ''),
  taken_at timestamptz not null,
  received_at timestamptz not null,
  raw text not null check (raw <> ''),
  quantity text not null,
  value double precision not null,
  phase text not null check (phase in ('none', 'underLoad', 'released')),
  measure text check (measure in ('tip', 'level')),
  point_id uuid references point (id),
  to_point_id uuid references point (id),
  station_id uuid references seam_station (id),
  feature_id uuid references feature (id),
  pull_id uuid references pull (id),
  check (num_nonnulls(point_id, station_id, feature_id) = 1),
  check ((quantity in ('gap', 'flush')) = (station_id is not null)),
  check ((quantity = 'distance') = (to_point_id is not null)),
  check ((quantity = 'distance') = (measure is not null)),
  check (to_point_id is null or (point_id is not null and to_point_id <> point_id)),
  check (pull_id is not null or phase = 'none')
);

create index reading_in_round on reading (round_id, sequence);
create index reading_in_line on reading (line_id);

create table reading_strike (
  id uuid primary key,
  reading_id uuid not null unique references reading (id),
  struck_at timestamptz not null,
  author text not null check (author <> ''),
  reason text not null check (reason <> ''),
  replaced_by_line_id uuid
);

create table brace (
  id uuid primary key,
  job_id uuid not null references job (id),
  code text not null check (code <> ''),
  from_point_id uuid not null references point (id),
  to_point_id uuid not null references point (id),
  kind text not null check (kind in ('weldedTube', 'adjustable', 'boltedFrame')),
  section text not null,
  round_id uuid references round (id),
  note text not null,
  version integer not null check (version >= 1),
  unique (job_id, code),
  check (from_point_id <> to_point_id)
);

create table brace_dimension (
  brace_id uuid not null references brace (id),
  dimension_id uuid not null references dimension (id),
  primary key (brace_id, dimension_id)
);

create table brace_event (
  id uuid primary key,
  brace_id uuid not null references brace (id),
  kind text not null check (kind in ('planned', 'fitted', 'removed')),
  at timestamptz not null,
  author text not null check (author <> ''),
  note text not null
);

create table step (
  id uuid primary key,
  job_id uuid not null references job (id),
  rung text not null,
  ordinal integer not null,
  title text not null check (title <> ''),
  note text not null,
  needs text not null,
  version integer not null check (version >= 1)
);

create table step_event (
  id uuid primary key,
  step_id uuid not null references step (id),
  kind text not null check (kind in ('begun', 'curing', 'missing', 'done', 'dropped', 'reopened')),
  until timestamptz,
  at timestamptz not null,
  author text not null check (author <> ''),
  note text not null
);

create table log_entry (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null check (kind in ('finding', 'decision')),
  text text not null check (text <> ''),
  reason text not null,
  author text not null check (author <> ''),
  at timestamptz not null,
  round_id uuid references round (id),
  supersedes uuid references log_entry (id)
);

-- A deviation is accepted only against a named reference.
create table log_subject (
  id uuid primary key,
  entry_id uuid not null references log_entry (id),
  point_id uuid references point (id),
  dimension_id uuid references dimension (id),
  accepted_deviation double precision,
  reference_id uuid references reference (id),
  check (num_nonnulls(point_id, dimension_id) = 1),
  check ((accepted_deviation is null) = (reference_id is null))
);

-- The bytes of a picture, in parts so that they stream in and out without filling the memory.
-- They are written first: a photograph cannot exist without its content.
create table photograph_content (
  id uuid primary key,
  preview bytea not null
);

create table photograph_part (
  content_id uuid not null references photograph_content (id) on delete cascade,
  number integer not null check (number >= 0),
  bytes bytea not null,
  primary key (content_id, number)
);

create table photograph (
  id uuid primary key references photograph_content (id),
  job_id uuid not null references job (id),
  entry_id uuid references log_entry (id),
  name text not null check (name <> ''),
  media_type text not null,
  bytes integer not null check (bytes > 0 and bytes <= 15728640),
  width integer not null check (width > 0),
  height integer not null check (height > 0),
  sha256 text not null,
  author text not null check (author <> ''),
  at timestamptz not null
);

create table signed_record (
  id uuid primary key,
  job_id uuid not null references job (id),
  number integer not null check (number >= 1),
  signed_by text not null check (signed_by <> ''),
  signed_at timestamptz not null,
  snapshot jsonb not null,
  unique (job_id, number)
);

create index point_of_job on point (job_id);
create index reference_point_of_point on reference_point (point_id);
create index photograph_of_entry on photograph (entry_id);

create trigger append_only before update or delete on instrument_version
  for each row execute function refuse_change();
create trigger append_only before update or delete on reading
  for each row execute function refuse_change();
create trigger append_only before update or delete on reading_strike
  for each row execute function refuse_change();
create trigger append_only before update or delete on brace_event
  for each row execute function refuse_change();
create trigger append_only before update or delete on pull_event
  for each row execute function refuse_change();
create trigger append_only before update or delete on step_event
  for each row execute function refuse_change();
create trigger append_only before update or delete on log_entry
  for each row execute function refuse_change();
create trigger append_only before update or delete on log_subject
  for each row execute function refuse_change();
create trigger append_only before update or delete on signed_record
  for each row execute function refuse_change();
