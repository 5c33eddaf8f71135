-- The region whose numbers and dates a person reads, as a code of ISO 3166; that of their browser where it is null.
alter table person add column region text;
