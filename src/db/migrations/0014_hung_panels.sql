-- Panels that are hung or set: how big they are, the seams along their edges, the places at which they can be set or are held,
-- what a trial of a setting did, the shims on the shelf and packers under the body; what was measured of a panel and of its opening; what is not fitted
-- yet and will change gaps; how far joints spring; what holds a panel for a while; what lies under what.

alter table work_item drop constraint work_item_kind_check;
alter table work_item add check (kind in ('setUp', 'panel', 'stage', 'brace', 'joint', 'pull', 'hung'));

alter table work_event drop constraint work_event_kind_check;
alter table work_event add check (kind in ('ticked', 'unticked', 'adjusted', 'idle', 'carrying', 'checked', 'planned',
  'fitted', 'removed', 'passed', 'turned', 'cleared', 'loaded', 'released', 'done', 'abandoned',
  'off', 'gripped', 'clamped', 'pinned', 'dowelled', 'tacked', 'welded'));

create table hung_panel (
  id uuid primary key,
  job_id uuid not null references job (id),
  kind text not null check (kind in ('door', 'bonnet', 'bootLid', 'tailgate', 'wing', 'skin')),
  side text not null check (side in ('left', 'right', 'centre')),
  long double precision not null check (long > 0),
  high double precision not null check (high > 0),
  hung_at text check (hung_at in ('front', 'rear', 'top', 'bottom', 'left', 'right')),
  least_gap double precision not null check (least_gap >= 0),
  stand_in boolean not null,
  sure boolean not null,
  floats_until_id uuid check (floats_until_id <> id),
  note text not null,
  version integer not null check (version >= 1),
  unique (job_id, id),
  foreign key (job_id, id) references work_item (job_id, id),
  foreign key (job_id, floats_until_id) references hung_panel (job_id, id) deferrable initially deferred
);

create table panel_seam (
  hung_id uuid not null,
  seam_id uuid not null,
  job_id uuid,
  edge text not null check (edge in ('front', 'rear', 'top', 'bottom', 'left', 'right')),
  turned boolean not null,
  primary key (hung_id, seam_id),
  foreign key (job_id, hung_id) references hung_panel (job_id, id),
  foreign key (job_id, seam_id) references seam (job_id, id)
);

create table panel_setting (
  id uuid primary key,
  hung_id uuid not null,
  job_id uuid,
  ordinal integer not null check (ordinal >= 0),
  name text not null check (name <> ''),
  kind text not null check (kind in ('slot', 'shims', 'bend', 'hold')),
  x double precision not null,
  y double precision not null,
  way text check (way in ('long', 'high', 'out')),
  least double precision not null,
  most double precision not null check (most >= least),
  step double precision check (step > 0),
  in_now double precision not null,
  unique (job_id, id),
  check (kind <> 'hold' or way is not null),
  foreign key (job_id, hung_id) references hung_panel (job_id, id)
);

create table setting_effect (
  setting_id uuid not null,
  station_id uuid not null,
  job_id uuid,
  gap double precision not null,
  flush double precision not null,
  primary key (setting_id, station_id),
  foreign key (job_id, setting_id) references panel_setting (job_id, id),
  foreign key (job_id, station_id) references seam_station (job_id, id)
);

create table shim (
  id uuid primary key,
  job_id uuid not null references job (id),
  thickness double precision not null check (thickness > 0),
  pieces integer not null check (pieces >= 0),
  unique (job_id, thickness)
);

create table body_packer (
  id uuid primary key,
  job_id uuid not null references job (id),
  name text not null check (name <> ''),
  least double precision not null,
  most double precision not null check (most >= least),
  step double precision check (step > 0),
  in_now double precision not null,
  unique (job_id, id),
  unique (job_id, name)
);

create table packer_effect (
  packer_id uuid not null,
  station_id uuid not null,
  job_id uuid,
  gap double precision not null,
  flush double precision not null,
  primary key (packer_id, station_id),
  foreign key (job_id, packer_id) references body_packer (job_id, id),
  foreign key (job_id, station_id) references seam_station (job_id, id)
);

create table panel_measure (
  id uuid primary key,
  hung_id uuid not null,
  job_id uuid,
  thing text not null check (thing in ('panel', 'opening')),
  what text not null check (what in ('low', 'highUp', 'front', 'rear', 'down', 'up', 'twist')),
  wanted double precision not null,
  value double precision not null,
  sd double precision not null check (sd > 0),
  at timestamptz not null,
  author text not null check (author <> ''),
  unique (hung_id, thing, what),
  foreign key (job_id, hung_id) references hung_panel (job_id, id)
);

create table opening_corner (
  hung_id uuid not null,
  corner text not null check (corner in ('firstLow', 'lastLow', 'lastHigh', 'firstHigh')),
  job_id uuid,
  point_id uuid not null,
  primary key (hung_id, corner),
  unique (hung_id, point_id),
  foreign key (job_id, hung_id) references hung_panel (job_id, id),
  foreign key (job_id, point_id) references point (job_id, id)
);

create table allowance (
  id uuid primary key,
  job_id uuid not null references job (id),
  seam_id uuid,
  name text not null check (name <> ''),
  gap double precision not null,
  flush double precision not null,
  fitted boolean not null,
  foreign key (job_id, seam_id) references seam (job_id, id)
);

create table let_go (
  id uuid primary key,
  hung_id uuid not null,
  job_id uuid,
  place text not null check (place <> ''),
  sprung double precision not null,
  most double precision not null check (most > 0),
  at timestamptz not null,
  author text not null check (author <> ''),
  foreign key (job_id, hung_id) references hung_panel (job_id, id)
);

create table fixing (
  id uuid primary key,
  hung_id uuid not null,
  job_id uuid,
  kind text not null check (kind in ('dowel', 'screw', 'pin', 'hole', 'tack', 'tab')),
  name text not null check (name <> ''),
  place text not null,
  closed_at timestamptz,
  closed_by text not null,
  unique (hung_id, name),
  foreign key (job_id, hung_id) references hung_panel (job_id, id)
);

create table lap (
  id uuid primary key,
  job_id uuid not null references job (id),
  over_id uuid not null,
  under_id uuid check (under_id <> over_id),
  what text not null,
  done boolean not null,
  check (under_id is not null or what <> ''),
  foreign key (job_id, over_id) references hung_panel (job_id, id),
  foreign key (job_id, under_id) references hung_panel (job_id, id)
);

-- What is read besides gap and flush, or needs the whole.
create table fit_check (
  id uuid primary key,
  job_id uuid not null references job (id),
  hung_id uuid,
  kind text not null check (kind in ('offset', 'angle', 'profile', 'swage', 'jointStep', 'latch', 'lamp', 'bumper', 'lidSeal',
    'screenWidth', 'screenDiagonal')),
  place text not null check (place <> ''),
  wanted double precision not null,
  under double precision not null check (under >= 0),
  over double precision not null check (over >= 0),
  unique (job_id, id),
  foreign key (job_id, hung_id) references hung_panel (job_id, id)
);

create table fit_reading (
  id uuid primary key,
  check_id uuid not null,
  job_id uuid,
  value double precision not null,
  sd double precision not null check (sd > 0),
  at timestamptz not null,
  author text not null check (author <> ''),
  foreign key (job_id, check_id) references fit_check (job_id, id)
);
create index fit_reading_of_check on fit_reading (check_id);

create table panel_trim (
  id uuid primary key,
  hung_id uuid not null,
  job_id uuid,
  kind text not null check (kind in ('edge', 'hole', 'bead', 'spot')),
  place text not null check (place <> ''),
  edge text not null check (edge <> ''),
  is_at double precision not null,
  must_be double precision not null,
  done boolean not null,
  foreign key (job_id, hung_id) references hung_panel (job_id, id)
);

-- Rows that hang on rows of their job carry the job too, taken from what they hang on.
do $$
declare
  owned record;
begin
  for owned in
    select * from (values
      ('panel_seam', 'hung_panel', 'hung_id'),
      ('panel_setting', 'hung_panel', 'hung_id'),
      ('setting_effect', 'panel_setting', 'setting_id'),
      ('packer_effect', 'body_packer', 'packer_id'),
      ('opening_corner', 'hung_panel', 'hung_id'),
      ('panel_measure', 'hung_panel', 'hung_id'),
      ('let_go', 'hung_panel', 'hung_id'),
      ('fixing', 'hung_panel', 'hung_id'),
      ('fit_reading', 'fit_check', 'check_id'),
      ('panel_trim', 'hung_panel', 'hung_id')) as t (child, owner, key)
  loop
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

create trigger append_only before update or delete on let_go
  for each row execute function refuse_change();
create trigger append_only before update or delete on fit_reading
  for each row execute function refuse_change();

do $$
declare
  kept text;
begin
  foreach kept in array array['hung_panel', 'panel_seam', 'panel_setting', 'setting_effect', 'shim', 'body_packer',
    'packer_effect', 'panel_measure', 'opening_corner', 'allowance', 'let_go', 'fixing', 'lap', 'fit_check', 'fit_reading', 'panel_trim']
  loop
    call keep_in_journal(kept);
  end loop;
end
$$;
