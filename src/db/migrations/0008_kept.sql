-- What is acknowledged is kept: every change of a job's rows is noted in its transaction, for the journal beside the
-- database; and a row can only name rows of its own job, held by the schema itself.

-- What the transaction under way has changed; emptied into the journal before it commits. Nothing of it outlives its
-- transaction, so it needs no log of its own.
create unlogged table noted_change (
  ordinal bigserial primary key,
  table_name text not null,
  gone boolean not null,
  rows jsonb not null
);

-- The last line of the journal whose changes are in the database.
create table journal_mark (
  number bigint not null check (number >= 0)
);
insert into journal_mark (number) values (0);

-- Notes what a statement changed, where the program that has the database keeps a journal. The removal of a whole job
-- is noted by whoever removes it, as one thing.
create function note_change() returns trigger language plpgsql as $$
begin
  if current_setting('vinkel.journal', true) = 'on'
    and coalesce(current_setting('vinkel.removing', true), '') <> 'a job' then
    insert into noted_change (table_name, gone, rows)
    select tg_table_name, tg_op = 'DELETE', jsonb_agg(to_jsonb(changed)) from changed having count(*) > 0;
  end if;
  return null;
end
$$;

create procedure keep_in_journal(kept text) language plpgsql as $$
begin
  execute format('create trigger noted_insert after insert on %I referencing new table as changed
    for each statement execute function note_change()', kept);
  execute format('create trigger noted_update after update on %I referencing new table as changed
    for each statement execute function note_change()', kept);
  execute format('create trigger noted_delete after delete on %I referencing old table as changed
    for each statement execute function note_change()', kept);
end
$$;

do $$
declare
  kept text;
begin
  foreach kept in array array[
    'job', 'instrument', 'instrument_version', 'point', 'dimension', 'member_line', 'seam', 'seam_station',
    'shell_state', 'support', 'round', 'round_control', 'round_event', 'reference', 'reference_point',
    'reference_dimension', 'reference_station', 'reference_round', 'reference_choice', 'pull', 'pull_hold',
    'pull_event', 'reading', 'reading_strike', 'reading_keep', 'point_condition', 'brace', 'brace_dimension',
    'brace_event', 'step', 'step_event', 'log_entry', 'log_subject', 'photograph', 'signed_record', 'change',
    'withdrawal', 'finding_detail', 'decision_detail', 'part_tag', 'morning_check', 'morning_reading']
  loop
    call keep_in_journal(kept);
  end loop;
end
$$;

-- Rows that hang on rows of their job carry the job too, taken from what they hang on.
do $$
declare
  owned record;
begin
  for owned in
    select * from (values
      ('seam_station', 'seam', 'seam_id'),
      ('round_control', 'round', 'round_id'),
      ('round_event', 'round', 'round_id'),
      ('reference_point', 'reference', 'reference_id'),
      ('reference_dimension', 'reference', 'reference_id'),
      ('reference_station', 'reference', 'reference_id'),
      ('reference_round', 'reference', 'reference_id'),
      ('pull_hold', 'pull', 'pull_id'),
      ('pull_event', 'pull', 'pull_id'),
      ('reading', 'round', 'round_id'),
      ('reading_strike', 'reading', 'reading_id'),
      ('reading_keep', 'reading', 'reading_id'),
      ('point_condition', 'round', 'round_id'),
      ('brace_dimension', 'brace', 'brace_id'),
      ('brace_event', 'brace', 'brace_id'),
      ('step_event', 'step', 'step_id'),
      ('log_subject', 'log_entry', 'entry_id'),
      ('finding_detail', 'log_entry', 'entry_id'),
      ('decision_detail', 'log_entry', 'entry_id'),
      ('morning_reading', 'morning_check', 'morning_check_id')) as t (child, owner, key)
  loop
    execute format('alter table %I add column job_id uuid', owned.child);
    execute format('alter table %I disable trigger user', owned.child);
    execute format('update %1$I set job_id = owner.job_id from %2$I as owner where owner.id = %1$I.%3$I',
      owned.child, owned.owner, owned.key);
    execute format('alter table %I enable trigger user', owned.child);
    execute format('create function job_of_%1$s() returns trigger language plpgsql as $f$
      begin
        select job_id into new.job_id from %2$I where id = new.%3$I;
        return new;
      end
      $f$', owned.child, owned.owner, owned.key);
    execute format('create trigger job_of_owner before insert or update on %1$I
      for each row execute function job_of_%1$s()', owned.child);
  end loop;
end
$$;

-- What others name, by the job and the row.
alter table dimension add unique (job_id, id);
alter table seam add unique (job_id, id);
alter table seam_station add unique (job_id, id);
alter table shell_state add unique (job_id, id);
alter table support add unique (job_id, id);
alter table round add unique (job_id, id);
alter table reference add unique (job_id, id);
alter table pull add unique (job_id, id);
alter table log_entry add unique (job_id, id);

-- And who names them.
do $$
declare
  named record;
begin
  for named in
    select * from (values
      ('point', 'substitute_for_id', 'point'),
      ('round', 'state_id', 'shell_state'),
      ('round', 'support_id', 'support'),
      ('round_control', 'point_id', 'point'),
      ('reference', 'round_id', 'round'),
      ('reference', 'edition_of', 'reference'),
      ('reference_point', 'point_id', 'point'),
      ('reference_dimension', 'dimension_id', 'dimension'),
      ('reference_station', 'station_id', 'seam_station'),
      ('reference_round', 'round_id', 'round'),
      ('reference_choice', 'point_id', 'point'),
      ('reference_choice', 'dimension_id', 'dimension'),
      ('reference_choice', 'reference_id', 'reference'),
      ('pull', 'point_id', 'point'),
      ('pull', 'round_id', 'round'),
      ('pull_hold', 'point_id', 'point'),
      ('reading', 'point_id', 'point'),
      ('reading', 'to_point_id', 'point'),
      ('reading', 'station_id', 'seam_station'),
      ('reading', 'pull_id', 'pull'),
      ('point_condition', 'point_id', 'point'),
      ('brace', 'from_point_id', 'point'),
      ('brace', 'to_point_id', 'point'),
      ('brace', 'round_id', 'round'),
      ('brace_dimension', 'dimension_id', 'dimension'),
      ('log_entry', 'round_id', 'round'),
      ('log_entry', 'supersedes', 'log_entry'),
      ('log_subject', 'point_id', 'point'),
      ('log_subject', 'dimension_id', 'dimension'),
      ('log_subject', 'reference_id', 'reference'),
      ('photograph', 'entry_id', 'log_entry'),
      ('morning_check', 'round_id', 'round'),
      ('morning_reading', 'from_point_id', 'point'),
      ('morning_reading', 'to_point_id', 'point')) as t (child, key, named)
  loop
    -- In the place of the one that looked at the row alone.
    execute format('alter table %1$I drop constraint %1$s_%2$s_fkey,
      add foreign key (job_id, %2$I) references %3$I (job_id, id)', named.child, named.key, named.named);
  end loop;
end
$$;
