-- What prompts ask of an answer's code, and every trial of an answer by it.
create table prompt_check
(
    prompt_id  uuid        not null,
    study_id   uuid        not null,
    -- JSON in the form in which the code has it
    content    text        not null,
    -- SHA-256 of the content: a trial belongs to one
    digest     varchar(64) not null,
    -- counts up with every change
    revision   int         not null,
    changed_at timestamptz not null,
    -- a name: it stays what it was
    changed_by text        not null,
    constraint prompt_check_pk primary key (prompt_id),
    constraint prompt_check_prompt_fk foreign key (prompt_id) references prompt on delete cascade,
    constraint prompt_check_study_fk foreign key (study_id) references study,
    constraint prompt_check_revision_ck check (revision >= 1)
);
create index prompt_check_study_ix on prompt_check (study_id);

create table trial
(
    id             uuid        not null,
    study_id       uuid        not null,
    prompt_id      uuid        not null,
    answer_id      uuid        not null,
    -- 0 for the first reply, then the follow-ups
    turn           int         not null,
    -- of one code under one check, from 1
    repetition     int         not null,
    -- SHA-256 of the check that it is tried by: it says nothing of another
    check_digest   varchar(64) not null,
    -- SHA-256 of the text that is tried: it holds of no other
    digest         varchar(64) not null,
    -- in which trials are begun: candidates take turns
    place          bigint      not null,
    state          varchar(10) not null,
    -- the server that is at it, and until when it is taken to live
    owner          uuid,
    lease_until    timestamptz,
    ended_at       timestamptz,
    outcome        varchar(20),
    passed         int         not null default 0,
    asked          int         not null default 0,
    millis         bigint      not null default 0,
    memory_kb      bigint      not null default 0,
    warnings       int         not null default 0,
    deprecations   int         not null default 0,
    -- JSON in the form in which the code has it; absent until it has ended
    result         text,
    constraint trial_pk primary key (id),
    constraint trial_one_uq unique (answer_id, turn, repetition, check_digest),
    constraint trial_study_fk foreign key (study_id) references study,
    constraint trial_prompt_fk foreign key (prompt_id) references prompt on delete cascade,
    constraint trial_answer_fk foreign key (answer_id) references answer on delete cascade,
    constraint trial_turn_ck check (turn between 0 and 20),
    constraint trial_repetition_ck check (repetition between 1 and 10),
    constraint trial_state_ck check (state in ('WAITING', 'RUNNING', 'ENDED', 'STOPPED')),
    constraint trial_outcome_ck check (outcome in ('DID_NOT_APPLY', 'DID_NOT_COMPILE', 'CRASHED', 'TIMED_OUT', 'OUT_OF_MEMORY',
                                                   'WRONG_OUTPUT', 'FAILED_TESTS', 'PASSED')),
    constraint trial_ended_ck check ((state = 'ENDED') = (outcome is not null and result is not null)),
    constraint trial_running_ck check ((state = 'RUNNING') = (owner is not null))
);
create index trial_study_ix on trial (study_id);
create index trial_prompt_ix on trial (prompt_id);
create index trial_open_ix on trial (state, place) where state in ('WAITING', 'RUNNING');
