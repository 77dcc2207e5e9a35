-- What was written can be taken back, by somebody and for a reason, and put back; nothing is wiped.

create table withdrawal (
  id uuid primary key,
  job_id uuid not null references job (id),
  table_name text not null
    check (table_name in ('brace', 'brace_event', 'pull', 'pull_event', 'step_event', 'seam', 'log_entry', 'part_tag')),
  row_id uuid not null,
  kind text not null check (kind in ('withdrawn', 'restored')),
  at timestamptz not null,
  author text not null check (author <> ''),
  reason text not null
);

create index withdrawal_of_job on withdrawal (job_id);

-- A job is put away when it is not worked on; a shell without a chart is measured from places on a body's picture.
alter table job
  add column put_away_at timestamptz,
  add column body text check (body in ('twoDoor', 'fourDoor', 'estate', 'open', 'pickupCab', 'onPlatform')),
  add column wheelbase double precision check (wheelbase > 0),
  add column track double precision check (track > 0),
  add column height double precision check (height > 0);

-- The place on the body's picture a point was chosen at; empty where it was not.
alter table point add column place text not null default '';

-- Some steps are done by what the program itself sees done.
alter table step add column done_by text check (done_by in ('signing'));
update step set done_by = 'signing' where rung = 'verify' and title = 'Sign the record';

-- An assumption stands until something overturns it.
alter table log_entry drop constraint log_entry_kind_check;
alter table log_entry
  add constraint log_entry_kind_check check (kind in ('finding', 'decision', 'assumption')),
  add column overturned_by text not null default '';

create table finding_detail (
  entry_id uuid primary key references log_entry (id),
  sort text not null,
  grade text,
  -- Thickness before and after, mm.
  before double precision,
  after double precision,
  weight text check (weight in ('structural', 'cosmetic')),
  -- Seen on one side: the other is still to be looked at.
  other_side boolean not null
);

create table decision_detail (
  entry_id uuid primary key references log_entry (id),
  hours double precision check (hours >= 0),
  owner_says text check (owner_says in ('yes', 'no')),
  owner_said_at timestamptz,
  check ((owner_says is null) = (owner_said_at is null))
);

-- A part that was taken off, by the number on its tag.
create table part_tag (
  id uuid primary key,
  job_id uuid not null references job (id),
  number integer not null check (number >= 1),
  part text not null check (part <> ''),
  taken_from text not null,
  state text not null,
  shelf text not null,
  keep_until text not null,
  at timestamptz not null,
  author text not null check (author <> ''),
  version integer not null check (version >= 1),
  unique (job_id, number)
);

-- Three readings before the first tool of the day, against what a round found.
create table morning_check (
  id uuid primary key,
  job_id uuid not null references job (id),
  round_id uuid not null references round (id),
  instrument_version_id uuid not null references instrument_version (id),
  at timestamptz not null,
  author text not null check (author <> '')
);

create table morning_reading (
  id uuid primary key,
  morning_check_id uuid not null references morning_check (id),
  from_point_id uuid not null references point (id),
  to_point_id uuid not null references point (id),
  measure text not null check (measure in ('tip', 'level')),
  value double precision not null check (value > 0),
  -- What it was expected to be and how sure that is, mm, as it was shown when it was typed.
  expected double precision not null,
  sd double precision not null check (sd > 0)
);

create index morning_check_of_job on morning_check (job_id);
create index morning_reading_of_check on morning_reading (morning_check_id);

create trigger append_only before update or delete on withdrawal
  for each row execute function refuse_change();
create trigger append_only before update or delete on finding_detail
  for each row execute function refuse_change();
create trigger append_only before update or delete on decision_detail
  for each row execute function refuse_change();
create trigger append_only before update or delete on morning_check
  for each row execute function refuse_change();
create trigger append_only before update or delete on morning_reading
  for each row execute function refuse_change();

-- That a job was exported, and as what: only what was taken out whole may be removed here.
create table job_export (
  job_id uuid not null references job (id),
  sha256 text not null,
  at timestamptz not null
);

create index job_export_of_job on job_export (job_id);

-- Removing a whole job is the one delete that append-only rows allow; its transaction says so.
create or replace function refuse_change() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' and current_setting('vinkel.removing', true) = 'a job' then
    return old;
  end if;
  raise exception '% is append-only: a correction is a new row', tg_table_name
    using errcode = 'restrict_violation';
end
$$;
