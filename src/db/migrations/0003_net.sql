-- What solving a round as one net asks for: pointers of a tram gauge, fixture heads, substitutes for
-- points that cannot be reached, what stands in the way of a point, doubts that were settled by keeping
-- the reading, and when an instrument was last checked.

alter table instrument_version
  add column pointers text not null default '',
  add column checked_at timestamptz;

alter table point add column substitute_for_id uuid references point (id);

alter table reading
  add column pointer_from double precision check (pointer_from >= 0),
  add column pointer_to double precision check (pointer_to >= 0),
  add column fit text check (fit in ('free', 'tight', 'none')),
  add check ((pointer_from is null) = (pointer_to is null)),
  add check (pointer_from is null or quantity = 'distance'),
  add check ((quantity = 'fixture') = (fit is not null));

-- The last one of a point in a round is what holds.
create table point_condition (
  id uuid primary key,
  round_id uuid not null references round (id),
  point_id uuid not null references point (id),
  kind text not null check (kind in ('buried', 'suspension', 'gone', 'worn', 'clear')),
  at timestamptz not null,
  author text not null check (author <> '')
);

create table reading_keep (
  id uuid primary key,
  reading_id uuid not null unique references reading (id),
  at timestamptz not null,
  author text not null check (author <> ''),
  reason text not null check (reason <> '')
);

create index point_condition_of_round on point_condition (round_id);

create trigger append_only before update or delete on point_condition
  for each row execute function refuse_change();
create trigger append_only before update or delete on reading_keep
  for each row execute function refuse_change();

insert into instrument (id, name, kind) values
  ('00000000-0000-4000-8000-000000000107', 'Fixture heads', 'fixtureHead');

insert into instrument_version
  (id, instrument_id, number, sd_constant, sd_per_metre, zero_offset, start_mark, steel, note, valid_from)
values
  ('00000000-0000-4000-8000-000000000207', '00000000-0000-4000-8000-000000000107', 1, 0.3, 0, 0, 0, true, '', '2000-01-01T00:00:00Z');
