-- Which process keeps the findings of a sheet, and until when. Not logged: after a failure of the database nobody has
-- any, and they are taken anew.
create unlogged table sheet_lease (
  sheet_id text primary key references sheet (id) on delete cascade,
  owner text not null,
  ends_at timestamptz not null
);
