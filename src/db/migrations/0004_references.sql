-- What judging against several references asks for: a standard deviation of each figure, editions of a
-- reference, several rounds behind one reference, rounds of other shells, a choice for a single point or
-- dimension, pairs that were never meant to match, and more ways a point can be doubtful.

alter table point add column mirrored boolean not null default true;

alter table round add column shell text not null default '';

alter table reference
  add column edition integer not null default 1 check (edition >= 1),
  add column edition_of uuid references reference (id),
  add column in_use boolean not null default true;

alter table reference_point add column sd double precision check (sd >= 0);
alter table reference_dimension add column sd double precision check (sd >= 0);
alter table reference_station add column sd double precision check (sd >= 0);

-- The rounds a reference was computed from.
create table reference_round (
  reference_id uuid not null references reference (id),
  round_id uuid not null references round (id),
  primary key (reference_id, round_id)
);

-- The last one of a subject holds; one that names no reference goes back to the ranks.
create table reference_choice (
  id uuid primary key,
  job_id uuid not null references job (id),
  point_id uuid references point (id),
  dimension_id uuid references dimension (id),
  reference_id uuid references reference (id),
  at timestamptz not null,
  author text not null check (author <> ''),
  reason text not null,
  check ((point_id is null) <> (dimension_id is null))
);

create index reference_choice_of_job on reference_choice (job_id);

create trigger append_only before update or delete on reference_choice
  for each row execute function refuse_change();

alter table point_condition drop constraint point_condition_kind_check;
alter table point_condition add constraint point_condition_kind_check
  check (kind in ('buried', 'suspension', 'gone', 'worn', 'oval', 'rusty', 'rebuilt', 'clear'));
