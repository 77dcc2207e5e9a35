-- What holds the shell while it is pulled is rows, not words in a note; subjects that nobody could ever make
-- (mounts and edges) go.

create table pull_hold (
  id uuid primary key,
  pull_id uuid not null references pull (id),
  point_id uuid not null references point (id),
  kind text not null check (kind in ('clamp', 'head', 'chain', 'bolt', 'weld', 'stand')),
  rating double precision check (rating > 0),
  unique (pull_id, point_id)
);

alter table reading drop column feature_id;
alter table reading add check (num_nonnulls(point_id, station_id) = 1);
drop table feature;
