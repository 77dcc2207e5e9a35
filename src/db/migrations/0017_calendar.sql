-- Time: how long a step takes and what it needs first, who does it and when they work, what was booked on it; days on which
-- nobody works; and timers, which ring until somebody heard them.

alter table step
  add column item_id uuid,
  add column minutes integer check (minutes >= 0),
  add column waits integer check (waits >= 0),
  add column cures_at double precision check (cures_at between -20 and 80),
  add column keeps integer check (keeps >= 0),
  add column tend_every integer check (tend_every >= 0),
  add column noise boolean not null default false,
  add column outdoor boolean not null default false,
  add column not_before timestamptz,
  add unique (job_id, id),
  add foreign key (job_id, item_id) references work_item (job_id, id);
alter table step alter column noise drop default, alter column outdoor drop default;

create table step_need (
  step_id uuid not null,
  needs_id uuid not null check (needs_id <> step_id),
  job_id uuid,
  primary key (step_id, needs_id),
  foreign key (job_id, step_id) references step (job_id, id),
  foreign key (job_id, needs_id) references step (job_id, id)
);

-- The order of the ladder is what was meant so far.
insert into step_need (step_id, needs_id, job_id)
  select id, before, job_id from (
    select id, job_id, lag(id) over (partition by job_id order by
      array_position(array['look', 'setUp', 'measure', 'brace', 'cut', 'pull', 'fit', 'weld', 'verify'], rung), ordinal) as before
    from step) as in_order
  where before is not null;

create table person (
  id uuid primary key,
  name text not null check (name <> ''),
  kind text not null check (kind in ('person', 'tool')),
  days integer[] not null,
  starts integer not null check (starts between 0 and 1440),
  ends integer not null check (ends between starts and 1440),
  noise_starts integer not null check (noise_starts between 0 and 1440),
  noise_ends integer not null check (noise_ends between noise_starts and 1440),
  retired_at timestamptz
);

create table step_person (
  step_id uuid not null,
  person_id uuid not null references person (id),
  job_id uuid,
  primary key (step_id, person_id),
  foreign key (job_id, step_id) references step (job_id, id)
);

create table booking (
  id uuid primary key,
  step_id uuid not null,
  job_id uuid,
  minutes integer not null check (minutes <> 0),
  at timestamptz not null,
  author text not null check (author <> ''),
  note text not null,
  foreign key (job_id, step_id) references step (job_id, id)
);
create trigger append_only before update or delete on booking
  for each row execute function refuse_change();

create table closed_day (
  id uuid primary key,
  day text not null check (day ~ '^\d{4}-\d\d-\d\d$'),
  kind text not null check (kind in ('closed', 'wet')),
  name text not null,
  unique (day, kind)
);

create table timer (
  id uuid primary key,
  job_id uuid not null references job (id),
  name text not null check (name <> ''),
  step_id uuid,
  rings_at timestamptz not null,
  at timestamptz not null,
  author text not null check (author <> ''),
  heard_at timestamptz,
  heard_by text not null,
  foreign key (job_id, step_id) references step (job_id, id)
);

call carries_job('step_need', 'step', 'step_id');
call carries_job('step_person', 'step', 'step_id');
call carries_job('booking', 'step', 'step_id');

do $$
declare
  kept text;
begin
  foreach kept in array array['step_need', 'step_person', 'person', 'booking', 'closed_day', 'timer']
  loop
    call keep_in_journal(kept);
  end loop;
end
$$;
