-- Up to where in its log a sheet's findings are known, and at what moment that was.
create table finding_head (
  sheet_id text primary key references sheet (id) on delete cascade,
  sequence bigint not null,
  at timestamptz not null default now()
);
insert into finding_head (sheet_id, sequence) select id, head from sheet;

-- A cell that entered or left a rule: has a look by it since then, or no more.
create table finding (
  sheet_id text not null references sheet (id) on delete cascade,
  id bigint generated always as identity,
  rule_id text not null,
  rule_name text not null,
  -- What is said of the outcome, for rules with several; empty for others.
  outcome text not null,
  way text not null check (way in ('entered', 'left')),
  row_id text not null,
  field_id text not null,
  -- As they were called and shown then.
  record text not null,
  label text not null,
  before text not null,
  after text not null,
  -- How many cells have the rule's look after the change.
  painted integer not null,
  -- The change that did it, and who made that; null for the clock.
  sequence bigint,
  author text,
  at timestamptz not null,
  primary key (sheet_id, id)
);
create index finding_rule on finding (sheet_id, rule_id, id);

create table finding_seen (
  sheet_id text not null,
  finding_id bigint not null,
  person_id text not null references person (id) on delete cascade,
  primary key (sheet_id, finding_id, person_id),
  foreign key (sheet_id, finding_id) references finding (sheet_id, id) on delete cascade
);

-- How a person follows a sheet: everything up to a finding is seen; when a digest is written, and when the last one was.
create table finding_follow (
  sheet_id text not null references sheet (id) on delete cascade,
  person_id text not null references person (id) on delete cascade,
  seen_to bigint not null default 0,
  digest text not null default 'none' check (digest in ('none', 'hour', 'day')),
  digest_at timestamptz not null default now(),
  digest_to bigint not null default 0,
  primary key (sheet_id, person_id)
);

create table finding_mute (
  sheet_id text not null references sheet (id) on delete cascade,
  person_id text not null references person (id) on delete cascade,
  rule_id text not null,
  primary key (sheet_id, person_id, rule_id)
);

create table finding_note (
  sheet_id text not null,
  id bigint generated always as identity,
  finding_id bigint not null,
  author text not null,
  text text not null,
  at timestamptz not null default now(),
  primary key (sheet_id, id),
  foreign key (sheet_id, finding_id) references finding (sheet_id, id) on delete cascade
);

-- Rules of which one is told at once.
create table important_rule (
  sheet_id text not null references sheet (id) on delete cascade,
  rule_id text not null,
  primary key (sheet_id, rule_id)
);

-- A local address to which findings are posted as they come.
create table finding_hook (
  sheet_id text primary key references sheet (id) on delete cascade,
  url text not null
);
