-- The looks of a category stand in the order in which they were given: json keeps the order of keys, jsonb does not.
alter table sheet_rule alter column rule type json using rule::json;
alter table sheet_change alter column operations type json using operations::json, alter column inverse type json using inverse::json;
