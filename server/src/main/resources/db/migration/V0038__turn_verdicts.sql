-- Whether each reply of an answer does what was asked, as a lead found.
create table turn_said
(
    answer_id uuid        not null,
    -- 0 for the first reply, then the follow-ups
    turn      int         not null,
    study_id  uuid        not null,
    verdict   varchar(20) not null,
    said_at   timestamptz not null,
    -- a name: it stays what it was
    said_by   text        not null,
    -- SHA-256 of the reply that it was said of
    digest    varchar(64) not null,
    constraint turn_said_pk primary key (answer_id, turn),
    constraint turn_said_answer_fk foreign key (answer_id) references answer on delete cascade,
    constraint turn_said_study_fk foreign key (study_id) references study,
    constraint turn_said_turn_ck check (turn between 0 and 20),
    constraint turn_said_verdict_ck check (verdict in ('DOES', 'DOES_NOT', 'GAVE_UP', 'SAID_DONE'))
);
create index turn_said_study_ix on turn_said (study_id);

-- Where code does not work, raters may say that it gave up, or said that it was done.
alter table sheet_answer
    drop constraint sheet_answer_works_ck,
    add constraint sheet_answer_works_ck check (works in ('AS_IS', 'AFTER_REPAIR', 'NOT', 'GAVE_UP', 'SAID_DONE', 'NOT_TRIED'));
