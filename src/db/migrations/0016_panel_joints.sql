-- The joints of a panel are rows: each goes up the holding ladder by itself. A name that a joint was let go under is a joint.

-- Rows that hang on a row of their job carry the job too, taken from what they hang on.
create procedure carries_job(child text, owner text, key text) language plpgsql as $$
begin
  execute format('create function job_of_%1$s() returns trigger language plpgsql as $f$
    begin
      select job_id into new.job_id from %2$I where id = new.%3$I;
      return new;
    end
    $f$', child, owner, key);
  execute format('create trigger job_of_owner before insert or update on %1$I
    for each row execute function job_of_%1$s()', child);
end
$$;

create table panel_joint (
  hung_id uuid not null,
  name text not null check (name <> ''),
  job_id uuid,
  edge text check (edge in ('front', 'rear', 'top', 'bottom', 'left', 'right')),
  joint_id uuid,
  primary key (hung_id, name),
  foreign key (job_id, hung_id) references hung_panel (job_id, id),
  foreign key (job_id, joint_id) references joint (job_id, id)
);

call carries_job('panel_joint', 'hung_panel', 'hung_id');

insert into panel_joint (hung_id, name) select distinct hung_id, place from let_go;

alter table let_go add foreign key (hung_id, place) references panel_joint (hung_id, name);
alter table fixing
  add column joint text,
  add foreign key (hung_id, joint) references panel_joint (hung_id, name);

call keep_in_journal('panel_joint');
