-- Specimens: answers that a prompt of the bank brings along, for raters to calibrate by. Nobody is told whose they were.
alter table answer alter column candidate_id drop not null;

-- At which level a specimen should stand, as it was said where it was kept; by the criterion's key, as a rubric may come later.
create table specimen_level
(
    answer_id      uuid        not null,
    criterion_key  text        not null,
    level          int         not null,
    highest_level  int         not null,
    reason         text        not null,
    -- a name: it stays what it was
    said_by        text        not null,
    said_at        timestamptz not null,
    constraint specimen_level_pk primary key (answer_id, criterion_key),
    constraint specimen_level_answer_fk foreign key (answer_id) references answer on delete cascade,
    constraint specimen_level_level_ck check (level between 0 and highest_level)
);

-- The specimens of a kept version as JSON, in the form in which the code has them; absent where there are none.
alter table bank_version
    add column specimens text,
    -- how many they are, so that a list of what is kept need not read them
    add column specimen_count int not null default 0,
    add constraint bank_version_specimens_ck check ((specimens is null) = (specimen_count = 0));
