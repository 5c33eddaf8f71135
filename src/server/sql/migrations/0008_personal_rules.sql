-- Rules on a shared sheet that only their author sees.
create table personal_rule (
  sheet_id text not null references sheet (id) on delete cascade,
  -- `person ID` or `visitor ID`.
  author text not null,
  id text not null,
  key text collate "C" not null,
  rule json not null,
  primary key (sheet_id, author, id)
);
