-- A packed copy of a large sheet as it was at a sequence, in a form that the version before does not read: that one goes
-- on with its own copies (sheet_snapshot), which a later migration removes.
create table packed_sheet (
  sheet_id text primary key references sheet (id) on delete cascade,
  sequence bigint not null,
  packed bytea not null
);
