-- What a point is of, further kinds of brace, the order in which the panels of a stage come out, and blasting.

alter table point
  add column kind text not null default 'shell' check (kind in ('shell', 'bolt', 'punch', 'drawn'));

alter table brace drop constraint brace_kind_check;
alter table brace
  add check (kind in ('weldedTube', 'adjustable', 'boltedFrame', 'slip', 'prop', 'part')),
  -- N/mm
  add column stiffness double precision check (stiffness > 0),
  -- N
  add column force double precision check (force > 0);

alter table panel add column ordinal integer not null default 0 check (ordinal >= 0);

alter table work_item drop constraint work_item_kind_check;
alter table work_item
  add check (kind in ('setUp', 'panel', 'stage', 'brace', 'joint', 'pull', 'hung', 'crack', 'stiffener', 'blasting'));

alter table work_event drop constraint work_event_kind_check;
alter table work_event add check (kind in ('ticked', 'unticked', 'adjusted', 'idle', 'carrying', 'checked', 'planned',
  'fitted', 'loosened', 'removed', 'passed', 'turned', 'cleared', 'loaded', 'released', 'done', 'abandoned',
  'off', 'gripped', 'clamped', 'pinned', 'dowelled', 'tacked', 'welded'));
