-- What metal came home by on the car before, of the same model: where, which way, and how much of each stroke stayed.
create table spring_back (
  id uuid primary key,
  job_id uuid not null references job (id),
  ordinal integer not null check (ordinal >= 0),
  section text not null check (section in ('front', 'centre', 'rear')),
  side text not null check (side in ('left', 'right', 'centre')),
  way text not null check (way in ('along', 'across', 'up')),
  by double precision not null,
  gained double precision not null,
  car text not null check (car <> '')
);
create index spring_back_of_job on spring_back (job_id);
create trigger append_only before update or delete on spring_back
  for each row execute function refuse_change();
call keep_in_journal('spring_back');
