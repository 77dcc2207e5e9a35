-- What several processes of the program on one database know together. In no archive, no backup and no journal.

-- When somebody last did something in a session; null where it is locked.
alter table session add column used_at timestamptz;

-- Wrong tries at a passphrase or a PIN, counted until a time (ms since 1970): in the shape of the package that counts them.
create unlogged table tries (
  key varchar(255) primary key,
  points integer not null,
  expire bigint
);

-- Forms that were sent, by their requests, and what came of them: one that is sent twice is done once.
create unlogged table asked_once (
  request text primary key,
  asked_at timestamptz not null default now(),
  outcome jsonb
);
