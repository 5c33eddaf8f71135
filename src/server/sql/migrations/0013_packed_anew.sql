-- Packed copies of the earlier version cannot be read any more.
delete from sheet_snapshot;
