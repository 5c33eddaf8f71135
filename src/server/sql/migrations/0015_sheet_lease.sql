-- Which process keeps the findings of a sheet, and until when. Unlogged: a crash of the
-- database empties it, and processes take new leases.
create unlogged table sheet_lease (
  sheet_id text primary key references sheet (id) on delete cascade,
  owner text not null,
  ends_at timestamptz not null
);
