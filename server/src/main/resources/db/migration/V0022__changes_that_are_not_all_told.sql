-- Comparing an answer with its starting code stops where it would take too long.
alter table answer add column changes_complete boolean not null default true;
