-- Sheets whose records stay in a table of another database. The address is sealed: who reads this table cannot use it.
create table linked_table (
  sheet_id text primary key references sheet (id) on delete cascade,
  sealed bytea not null,
  -- Where it is, for people: host and port.
  host text not null,
  -- Schema and name, the columns with the field of each, and those that order its rows.
  relation text[] not null,
  columns jsonb not null,
  key text[] not null
);
