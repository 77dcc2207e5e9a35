-- A round is closed, and opened again, by somebody and for a reason; and what is changed by hand leaves how it was.

create table round_event (
  id uuid primary key,
  round_id uuid not null references round (id),
  kind text not null check (kind in ('closed', 'opened')),
  at timestamptz not null,
  author text not null check (author <> ''),
  reason text not null,
  -- Opening a closed round is explained.
  check (kind = 'closed' or reason <> '')
);

create index round_event_of_round on round_event (round_id);

create table change (
  id uuid primary key,
  job_id uuid not null references job (id),
  batch uuid not null,
  table_name text not null,
  row_id uuid not null,
  before jsonb,
  after jsonb,
  at timestamptz not null,
  author text not null check (author <> ''),
  check (before is not null or after is not null)
);

create index change_of_job on change (job_id);

create trigger append_only before update or delete on round_event
  for each row execute function refuse_change();
create trigger append_only before update or delete on change
  for each row execute function refuse_change();
