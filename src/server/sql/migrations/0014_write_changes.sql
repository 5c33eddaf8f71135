-- Adds changes to the logs of sheets, writes rows, moves the sheets' heads, and notifies every process. Gives the sheets
-- of which all was done. Nothing is done of a sheet whose head is elsewhere by now, whose last change is another than
-- the named one, or that somebody else has locked.
-- A function, so that a session plans it once: planning takes longer than doing. Everything in it is found by its key,
-- whatever the tables looked like when it was planned.
create function write_changes(
  sheets text[], heads bigint[], lasts bigint[], last_ids text[],
  log_sheets text[], log_sequences bigint[], log_ids text[], log_authors text[], log_seen bigint[],
  log_operations text[], log_inverses text[],
  row_sheets text[], row_ids text[], row_keys text[], row_roles text[], row_cells text[], row_abouts text[]
) returns setof text language plpgsql
set plan_cache_mode = force_generic_plan set enable_seqscan = off set enable_hashjoin = off set enable_mergejoin = off
as $$
begin
  return query
  with asked as (
    select * from unnest(sheets, heads, lasts, last_ids) as asked (id, head, last, last_id)
  ), held as (
    select sheet.id, asked.last from asked join sheet on sheet.id = asked.id and sheet.head = asked.head
    where asked.last_id is null or exists (
      select from sheet_change change
      where change.sheet_id = asked.id and change.sequence = asked.head and change.change_id = asked.last_id)
    for no key update of sheet skip locked
  ), moved as (
    update sheet set head = held.last, changed_at = now() from held where sheet.id = held.id
    returning sheet.id, held.last
  ), logged as (
    insert into sheet_change (sheet_id, sequence, change_id, author, seen, operations, inverse)
    select moved.id, log.sequence, log.change_id, log.author, log.seen, log.operations::json, log.inverse::json
    from unnest(log_sheets, log_sequences, log_ids, log_authors, log_seen, log_operations, log_inverses)
      as log (sheet_id, sequence, change_id, author, seen, operations, inverse)
    join moved on moved.id = log.sheet_id
  ), changed as (
    update sheet_row set key = fresh.key, role = fresh.role, cells = fresh.cells::jsonb, about = fresh.about::jsonb
    from unnest(row_sheets, row_ids, row_keys, row_roles, row_cells, row_abouts)
      as fresh (sheet_id, id, key, role, cells, about)
    join moved on moved.id = fresh.sheet_id
    where sheet_row.sheet_id = moved.id and sheet_row.id = fresh.id
  ), told as (
    select moved.id, pg_notify('sheet_change', moved.id || ' ' || moved.last) from moved
  )
  select told.id from told;
end
$$;
