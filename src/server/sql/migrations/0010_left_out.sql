-- Sheets whose work took too long, or more memory than a worker may have: left out until they are changed, each time for longer.
create table sheet_left_out (
  sheet_id text primary key references sheet (id) on delete cascade,
  sequence bigint not null,
  times integer not null,
  at timestamptz not null default now()
);
