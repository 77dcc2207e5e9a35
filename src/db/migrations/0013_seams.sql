-- Where a seam lies on the shell, by the points near its two ends, and how much people see of it.

alter table seam
  add column sight text not null default 'shut' check (sight in ('line', 'shut', 'hidden')),
  add column from_point_id uuid,
  add column to_point_id uuid,
  add check (from_point_id <> to_point_id),
  add foreign key (job_id, from_point_id) references point (job_id, id),
  add foreign key (job_id, to_point_id) references point (job_id, id);
alter table seam alter column sight drop default;
