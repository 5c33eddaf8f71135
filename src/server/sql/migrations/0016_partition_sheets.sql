-- Lays sheets, their rows, their logs and their findings into so many parts each, by a hash of the sheet's id: so that
-- each part is vacuumed and indexed by itself, and can lie on another disk. Nothing is partitioned until it is asked
-- for (npm run partition): each statement costs a tenth of a millisecond more then. What is there is moved in one
-- transaction, in which nobody else can read or write it.
create function partition_sheets(parts int) returns void language plpgsql as $$
declare
  moved record;
  kept record;
  part int;
begin
  if parts < 1 or parts > 256 then
    raise exception 'the number of parts goes from 1 to 256';
  end if;
  if to_regclass(format('sheet_%s_0', parts)) is not null then
    raise exception 'sheets lie in % parts already', parts;
  end if;
  -- Ids of findings come from a sequence that all parts share: parts have no identity of their own.
  alter table finding alter column id drop identity if exists;
  create sequence if not exists finding_number;
  perform setval('finding_number', coalesce((select max(id) from finding), 1), exists (select from finding));

  -- Constraints that refer to these tables, or are theirs, are made again below by the same names; indexes as well.
  create temporary table constraint_kept on commit drop as
    select conrelid::regclass::text as of_table, conname as name, contype, pg_get_constraintdef(oid) as definition
    from pg_constraint
    where conparentid = 0 and (confrelid in ('sheet'::regclass, 'finding'::regclass)
      or conrelid in ('sheet'::regclass, 'sheet_row'::regclass, 'sheet_change'::regclass, 'finding'::regclass));
  create temporary table index_kept on commit drop as
    select replace(indexdef, ' ON ONLY ', ' ON ') as definition from pg_indexes
    where schemaname = 'public' and tablename in ('sheet', 'sheet_row', 'sheet_change', 'finding')
      and indexname not in (select name from constraint_kept);
  for kept in select * from constraint_kept where contype = 'f' loop
    execute format('alter table %s drop constraint %I', kept.of_table, kept.name);
  end loop;

  for moved in
    select * from (values ('sheet', 'id'), ('sheet_row', 'sheet_id'), ('sheet_change', 'sheet_id'), ('finding', 'sheet_id'))
      as tables (name, key)
  loop
    execute format('alter table %I rename to %I', moved.name, moved.name || '_before');
    execute format('create table %I (like %I including defaults) partition by hash (%I)',
      moved.name, moved.name || '_before', moved.key);
    for part in 0..parts - 1 loop
      execute format('create table %I partition of %I for values with (modulus %s, remainder %s)',
        moved.name || '_' || parts || '_' || part, moved.name, parts, part);
    end loop;
    execute format('insert into %I select * from %I', moved.name, moved.name || '_before');
    if moved.name = 'finding' then
      alter sequence finding_number owned by none;
    end if;
    execute format('drop table %I', moved.name || '_before');
  end loop;
  alter table finding alter column id set default nextval('finding_number');
  alter sequence finding_number owned by finding.id;

  -- Keys first: what refers to them needs them. A check may have come along with its column.
  for kept in select * from constraint_kept where contype <> 'n' order by contype = 'f' loop
    execute format('alter table %s drop constraint if exists %I', kept.of_table, kept.name);
    execute format('alter table %s add constraint %I %s', kept.of_table, kept.name, kept.definition);
  end loop;
  for kept in select * from index_kept loop
    execute kept.definition;
  end loop;
end
$$;
