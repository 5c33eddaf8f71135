-- Ordinary formatting and whatever else fields and rows have besides their cells.
alter table sheet_field add column about jsonb not null default '{}';
alter table sheet_row add column about jsonb;

-- What lies over the cells: named ranges, merged cells.
create table sheet_part (
  sheet_id text not null references sheet (id) on delete cascade,
  id text not null,
  part jsonb not null,
  primary key (sheet_id, id)
);

-- Packed copies of the earlier version cannot be read any more.
delete from sheet_snapshot;
