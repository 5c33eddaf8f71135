-- The last change that its author had seen when they made one: who overwrites what they have not seen can be told.
alter table sheet_change add column seen bigint;
