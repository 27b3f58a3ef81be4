-- Which of the things a fact answers that are asked of all candidates.
alter table consideration
    add column about varchar(20),
    add constraint consideration_about_ck check (about in ('PRIVACY', 'REGION', 'LICENCE', 'CAPS', 'CONTEXT', 'INTEGRATION'));
