-- People have accounts; what they may do with a sheet is their membership. Visitors come by a link and have no account.
-- Of every token only its SHA-256 is kept.
create table person (
  id text primary key,
  email text not null,
  name text not null,
  -- scrypt with its parameters and salt, see password.ts; null for the demo's owner, who signs in by one click.
  password text,
  created_at timestamptz not null default now()
);
create unique index person_email on person (lower(email));

create table person_session (
  token_hash bytea primary key,
  person_id text not null references person (id) on delete cascade,
  created_at timestamptz not null default now(),
  ends_at timestamptz not null
);
create index person_session_person on person_session (person_id);

-- Sign-ins that failed lately, so that guessing is slow. The address is kept as its hash.
create table failed_sign_in (
  email_hash bytea not null,
  at timestamptz not null default now()
);
create index failed_sign_in_email on failed_sign_in (email_hash, at);

create table sheet_member (
  sheet_id text not null references sheet (id) on delete cascade,
  person_id text not null references person (id) on delete cascade,
  role text not null check (role in ('owner', 'editor', 'filler', 'viewer')),
  since timestamptz not null default now(),
  primary key (sheet_id, person_id)
);
create index sheet_member_person on sheet_member (person_id);

create table sheet_link (
  sheet_id text not null references sheet (id) on delete cascade,
  id text not null,
  token_hash bytea not null unique,
  role text not null check (role in ('editor', 'filler', 'viewer')),
  name text not null,
  -- What a filler who comes by it has for their own: see link-gives.ts.
  gives json not null,
  -- An invitation: for somebody with an account, once. The link is gone when it has been taken up.
  invites text,
  ends_at timestamptz,
  revoked_at timestamptz,
  created_at timestamptz not null default now(),
  used_at timestamptz,
  primary key (sheet_id, id)
);

-- Somebody who came by a link and gave a name.
create table sheet_visitor (
  sheet_id text not null,
  id text not null,
  link_id text not null,
  token_hash bytea not null unique,
  name text not null,
  -- Fields and rows that are their own; null for all that are open.
  own_fields text[],
  own_rows text[],
  came_at timestamptz not null default now(),
  primary key (sheet_id, id),
  foreign key (sheet_id, link_id) references sheet_link (sheet_id, id) on delete cascade
);

-- No mail is sent: what would have been is kept for its sender to read and pass on.
create table outbox_mail (
  id bigint generated always as identity primary key,
  sender_id text not null references person (id) on delete cascade,
  recipient text not null,
  subject text not null,
  body text not null,
  written_at timestamptz not null default now()
);
create index outbox_mail_sender on outbox_mail (sender_id, id);

-- Sheets that were made before there were accounts are the demo owner's.
insert into person (id, email, name) select 'demo-owner', 'mara@wrenfold.example', 'Mara Quillfeather' where exists (select from sheet);
insert into sheet_member (sheet_id, person_id, role) select id, 'demo-owner', 'owner' from sheet;
update sheet_change set author = 'person demo-owner' where author = 'owner';
