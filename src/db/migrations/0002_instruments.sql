-- The instruments every shop starts with, at the standard deviations of the trade. The identities
-- are fixed so that a job carried to another shop finds the same instrument there.
insert into instrument (id, name, kind) values
  ('00000000-0000-4000-8000-000000000101', 'Steel tape', 'tape'),
  ('00000000-0000-4000-8000-000000000102', 'Tram gauge', 'tram'),
  ('00000000-0000-4000-8000-000000000103', 'Digital tram', 'digitalTram'),
  ('00000000-0000-4000-8000-000000000104', 'Caliper', 'caliper'),
  ('00000000-0000-4000-8000-000000000105', 'Height stick on the bench', 'heightStick'),
  ('00000000-0000-4000-8000-000000000106', 'Plumb and pointer to the bench', 'plumb');

insert into instrument_version
  (id, instrument_id, number, sd_constant, sd_per_metre, zero_offset, start_mark, steel, note, valid_from)
values
  ('00000000-0000-4000-8000-000000000201', '00000000-0000-4000-8000-000000000101', 1, 0.6, 0.3, 0, 0, true, '', '2000-01-01T00:00:00Z'),
  ('00000000-0000-4000-8000-000000000202', '00000000-0000-4000-8000-000000000102', 1, 0.5, 0, 0, 0, false, '', '2000-01-01T00:00:00Z'),
  ('00000000-0000-4000-8000-000000000203', '00000000-0000-4000-8000-000000000103', 1, 0.3, 0, 0, 0, false, '', '2000-01-01T00:00:00Z'),
  ('00000000-0000-4000-8000-000000000204', '00000000-0000-4000-8000-000000000104', 1, 0.25, 0, 0, 0, true, '', '2000-01-01T00:00:00Z'),
  ('00000000-0000-4000-8000-000000000205', '00000000-0000-4000-8000-000000000105', 1, 0.7, 0, 0, 0, false, '', '2000-01-01T00:00:00Z'),
  ('00000000-0000-4000-8000-000000000206', '00000000-0000-4000-8000-000000000106', 1, 1.0, 0, 0, 0, false, '', '2000-01-01T00:00:00Z');
