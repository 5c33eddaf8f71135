-- Programs come to one sheet by a token of their own. Of a token only its SHA-256 is kept; one that was taken back stays for the history.
create table sheet_program (
  sheet_id text not null references sheet (id) on delete cascade,
  id text not null,
  token_hash bytea not null unique,
  name text not null,
  -- True for the logger, which stands in for field devices and is started on screen.
  is_logger boolean not null default false,
  scopes text[] not null,
  created_at timestamptz not null default now(),
  used_at timestamptz,
  revoked_at timestamptz,
  primary key (sheet_id, id)
);

-- What a request with an Idempotency-Key was answered with, so that the same request sent again is answered the same.
create table program_answer (
  sheet_id text not null,
  program_id text not null,
  key text not null,
  -- SHA-256 of what was asked.
  asked bytea not null,
  answer json not null,
  at timestamptz not null default now(),
  primary key (sheet_id, program_id, key),
  foreign key (sheet_id, program_id) references sheet_program (sheet_id, id) on delete cascade
);

-- The name of who made a change, as changes and findings sign it: `person ID`, `visitor ID`, `program ID`, or `archived NAME`.
create function author_name(of_sheet text, author text) returns text stable language sql as $$
  select case
    when author like 'person %' then (select name from person where id = substr(author, 8))
    when author like 'visitor %' then (select name from sheet_visitor where sheet_id = of_sheet and id = substr(author, 9))
    when author like 'program %' then (select name from sheet_program where sheet_id = of_sheet and id = substr(author, 9))
    when author like 'archived %' then substr(author, 10)
  end
$$;
