-- Guesses at passwords, counted before they are looked at, by the hash of what is guessed at or of who guesses.
-- failed_sign_in stays: a process of an older version may still write to it while the app is updated.
create table guess (
  key bytea primary key,
  count integer not null,
  ends_at timestamptz not null
);

-- Where and when somebody is signed in, so that they can end what is not theirs.
alter table person_session
  add column id text not null default md5(random()::text || clock_timestamp()::text) unique,
  add column client text not null default '',
  add column agent text not null default '',
  add column used_at timestamptz not null default now();

-- Browsers in which somebody has signed in before: guesses from elsewhere do not keep them out. Of the token only its SHA-256 is kept.
create table person_device (
  token_hash bytea primary key,
  person_id text not null references person (id) on delete cascade,
  used_at timestamptz not null default now()
);
create index person_device_person on person_device (person_id);

-- Who gave a program its token, and until when it is good: it ends with the right of who gave it.
alter table sheet_program
  add column person_id text references person (id) on delete cascade,
  add column ends_at timestamptz;
update sheet_program set person_id = (select person_id from sheet_member where sheet_member.sheet_id = sheet_program.sheet_id and role = 'owner' order by since limit 1);
