-- What raters see of trials, and what they make of them.

-- when: from the start, after their own grade, never
alter table study add column trials_shown varchar(20) not null default 'AFTER_OWN_GRADE';
alter table study add constraint study_trials_shown_ck check (trials_shown in ('FROM_THE_START', 'AFTER_OWN_GRADE', 'NEVER'));

-- why a rater says otherwise than trials do; empty if they did not say
alter table sheet_answer add column works_why text not null default '';

-- How the check ended when it was tried last on the starting code and on the reference answer, and SHA-256 of what it was tried on with
-- the check itself: it says nothing of others
alter table prompt_check add column start_passed boolean;
alter table prompt_check add column start_digest varchar(64);
alter table prompt_check add column reference_passed boolean;
alter table prompt_check add column reference_digest varchar(64);

-- What a person changed of an answer's code so that it can be tried; the answer stays as it is.
create table repair
(
    id           uuid        not null,
    study_id     uuid        not null,
    prompt_id    uuid        not null,
    answer_id    uuid        not null,
    author_id    uuid        not null,
    -- texts of the changed files by path, as JSON
    files        text        not null,
    -- what was changed, file by file, as JSON
    changes      text        not null,
    -- changed; one that was replaced counts once
    lines        int         not null,
    -- SHA-256 of the check that it was tried by, and of the answer's text: it says nothing of others
    check_digest varchar(64) not null,
    digest       varchar(64) not null,
    outcome      varchar(20) not null,
    passed       int         not null,
    asked        int         not null,
    -- JSON in the form in which the code has it
    result       text        not null,
    made_at      timestamptz not null,
    constraint repair_pk primary key (id),
    constraint repair_study_fk foreign key (study_id) references study,
    constraint repair_prompt_fk foreign key (prompt_id) references prompt on delete cascade,
    constraint repair_answer_fk foreign key (answer_id) references answer on delete cascade,
    constraint repair_author_fk foreign key (author_id) references account,
    constraint repair_lines_ck check (lines >= 1),
    constraint repair_outcome_ck check (outcome in ('DID_NOT_APPLY', 'DID_NOT_COMPILE', 'CRASHED', 'TIMED_OUT', 'OUT_OF_MEMORY',
                                                    'WRONG_OUTPUT', 'FAILED_TESTS', 'PASSED'))
);
create index repair_study_ix on repair (study_id);
create index repair_prompt_ix on repair (prompt_id);
create index repair_answer_ix on repair (answer_id);
create index repair_author_ix on repair (author_id);

-- An input that a rater gave all answers of a sheet.
create table own_input
(
    id        uuid        not null,
    study_id  uuid        not null,
    sheet_id  uuid        not null,
    rater_id  uuid        not null,
    -- JSON
    arguments text        not null,
    input     text        not null,
    given_at  timestamptz not null,
    constraint own_input_pk primary key (id),
    constraint own_input_study_fk foreign key (study_id) references study,
    constraint own_input_sheet_fk foreign key (sheet_id) references sheet on delete cascade,
    constraint own_input_rater_fk foreign key (rater_id) references account
);
create index own_input_study_ix on own_input (study_id);
create index own_input_sheet_ix on own_input (sheet_id);
create index own_input_rater_ix on own_input (rater_id);

create table own_input_end
(
    input_id        uuid not null,
    sheet_answer_id uuid not null,
    -- JSON in the form in which the code has it
    result          text not null,
    constraint own_input_end_pk primary key (input_id, sheet_answer_id),
    constraint own_input_end_input_fk foreign key (input_id) references own_input on delete cascade,
    constraint own_input_end_answer_fk foreign key (sheet_answer_id) references sheet_answer on delete cascade
);
create index own_input_end_answer_ix on own_input_end (sheet_answer_id);

-- When a rater first saw the trial of an answer, and what they had graded it by then.
create table trial_seen
(
    sheet_answer_id uuid        not null,
    study_id        uuid        not null,
    rater_id        uuid        not null,
    answer_id       uuid        not null,
    seen_at         timestamptz not null,
    -- on the criterion that trials speak for; absent if there was none
    level           int,
    constraint trial_seen_pk primary key (sheet_answer_id),
    constraint trial_seen_answer_fk foreign key (sheet_answer_id) references sheet_answer on delete cascade,
    constraint trial_seen_study_fk foreign key (study_id) references study,
    constraint trial_seen_rater_fk foreign key (rater_id) references account,
    constraint trial_seen_of_fk foreign key (answer_id) references answer on delete cascade,
    constraint trial_seen_level_ck check (level >= 0)
);
create index trial_seen_study_ix on trial_seen (study_id);
create index trial_seen_rater_ix on trial_seen (rater_id);
create index trial_seen_of_ix on trial_seen (answer_id);
