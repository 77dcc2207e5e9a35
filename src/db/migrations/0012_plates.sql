-- A bar through several plates pulls at all of them at once: of each plate the share of the force that goes through it. The
-- pull's own point takes what is left. And of a pull, what takes its chain.

alter table pull add column anchor text check (anchor in ('tower', 'floor'));

create table plate (
  id uuid primary key,
  item_id uuid not null,
  job_id uuid,
  point_id uuid not null,
  share double precision not null check (share > 0 and share < 1),
  unique (item_id, point_id),
  foreign key (job_id, item_id) references work_item (job_id, id),
  foreign key (job_id, point_id) references point (job_id, id)
);

create function job_of_plate() returns trigger language plpgsql as $$
begin
  select job_id into new.job_id from work_item where id = new.item_id;
  return new;
end
$$;
create trigger job_of_owner before insert or update on plate
  for each row execute function job_of_plate();
call keep_in_journal('plate');
