-- Rules kept to be used in several sheets. A new version is made whenever they are saved anew.
create table rule_set (
  id text primary key,
  owner_id text not null references person (id) on delete cascade,
  name text not null,
  version integer not null default 1,
  -- See protocol/rule-sets.ts; json, since the looks of a category keep their order.
  body json not null,
  changed_at timestamptz not null default now()
);
create index rule_set_owner on rule_set (owner_id);
