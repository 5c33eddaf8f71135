-- What is known of the cells of rules that wait with their findings, by rule, and when the next has something to report.
alter table finding_head add column quiet jsonb, add column quiet_due timestamptz;
create index finding_head_due on finding_head (quiet_due) where quiet_due is not null;
