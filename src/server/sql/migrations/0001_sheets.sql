-- sheet_id leads every primary key, so that the tables can be partitioned or distributed by it.
-- Order keys are compared by code units, hence collate "C".
create table sheet (
  id text primary key,
  name text not null,
  settings jsonb not null default '{}',
  head bigint not null default 0,
  created_at timestamptz not null default now(),
  changed_at timestamptz not null default now()
);

create table sheet_field (
  sheet_id text not null references sheet (id) on delete cascade,
  id text not null,
  key text collate "C" not null,
  width_px integer not null,
  format text,
  unit text,
  primary key (sheet_id, id)
);

create table sheet_row (
  sheet_id text not null references sheet (id) on delete cascade,
  id text not null,
  key text collate "C" not null,
  role text not null,
  cells jsonb not null,
  primary key (sheet_id, id)
);

create index sheet_row_order on sheet_row (sheet_id, key, id);

create table sheet_rule (
  sheet_id text not null references sheet (id) on delete cascade,
  id text not null,
  key text collate "C" not null,
  rule jsonb not null,
  primary key (sheet_id, id)
);

-- The log of what happened: only ever added to.
create table sheet_change (
  sheet_id text not null references sheet (id) on delete cascade,
  sequence bigint not null,
  change_id text not null,
  author text not null,
  operations jsonb not null,
  inverse jsonb not null,
  made_at timestamptz not null default now(),
  primary key (sheet_id, sequence),
  unique (sheet_id, change_id)
);

-- A packed copy of a large sheet as it was at a sequence, so that it opens quickly. The rows are the truth.
create table sheet_snapshot (
  sheet_id text primary key references sheet (id) on delete cascade,
  sequence bigint not null,
  packed bytea not null
);
