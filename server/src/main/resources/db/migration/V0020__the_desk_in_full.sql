-- What the brief asks of raters beside levels.
alter table study
    add column reasons            varchar(20) not null default 'AT_THE_ENDS',
    add column shows_reference    boolean     not null default false,
    add column asks_source_guess  boolean     not null default false;
alter table study
    alter column reasons drop default,
    alter column shows_reference drop default,
    alter column asks_source_guess drop default,
    add constraint study_reasons_ck check (reasons in ('AT_THE_ENDS', 'ALWAYS'));

-- A withdrawn sheet keeps its grades, and they count nowhere.
alter table sheet
    add column withdrawn_at      timestamptz,
    add column withdrawn_reason  text,
    add constraint sheet_withdrawn_ck check ((withdrawn_at is null) = (withdrawn_reason is null));

-- What became of a sheet, in order; rows are only ever added.
create table sheet_event (
    id        uuid        primary key,
    sheet_id  uuid        not null references sheet (id),
    sort      varchar(20) not null,
    -- a name: it stays what it was
    made_by   text        not null,
    note      text        not null,
    made_at   timestamptz not null,
    constraint sheet_event_sort_ck
        check (sort in ('SENT', 'TAKEN_BACK', 'WITHDRAWN', 'GIVEN_BACK', 'TAKEN_OVER'))
);
create index sheet_event_sheet_ix on sheet_event (sheet_id, made_at);

alter table grade
    add column confidence varchar(10),
    add constraint grade_confidence_ck check (confidence in ('SURE', 'FAIRLY', 'UNSURE'));

alter table sheet_answer
    -- whether its code works as it is; absent until the rater says so
    add column works                varchar(20),
    add column works_revision       bigint  not null default 0,
    -- place in the order of preference, from 1; equal places are ties
    add column preference           int,
    add column preference_revision  bigint  not null default 0,
    add column guess_candidate_id   uuid references candidate (id),
    -- asked, and the rater has no idea
    add column guess_none           boolean not null default false,
    add column guess_revision       bigint  not null default 0,
    add constraint sheet_answer_works_ck check (works in ('AS_IS', 'AFTER_REPAIR', 'NOT', 'NOT_TRIED')),
    add constraint sheet_answer_preference_ck check (preference >= 1),
    add constraint sheet_answer_guess_ck check (not (guess_none and guess_candidate_id is not null));
create index sheet_answer_guess_ix on sheet_answer (guess_candidate_id);

-- How far an answer holds a key point of its prompt.
create table coverage (
    sheet_answer_id  uuid   not null references sheet_answer (id),
    -- which key point, from 0
    point            int    not null,
    -- absent when taken back
    verdict          varchar(20),
    revision         bigint not null,
    constraint coverage_pk primary key (sheet_answer_id, point),
    constraint coverage_point_ck check (point >= 0),
    constraint coverage_verdict_ck check (verdict in ('COVERED', 'PARTLY', 'MISSED', 'CONTRADICTED'))
);

create table remark (
    id               uuid        primary key,
    sheet_answer_id  uuid        not null references sheet_answer (id),
    stance           varchar(10) not null,
    -- as the rubric calls it; empty for none
    trait            text        not null,
    words            text        not null,
    -- where the lines are; absent for a remark on the whole answer
    part             varchar(10),
    -- the file that the lines are in, where the part has files
    path             text,
    from_line        int,
    to_line          int,
    -- the lines as the rater read them
    quote            text        not null,
    removed          boolean     not null,
    revision         bigint      not null,
    constraint remark_stance_ck check (stance in ('CREDIT', 'FAULT')),
    constraint remark_part_ck check (part in ('TEXT', 'BEFORE', 'AFTER', 'FILE')),
    constraint remark_lines_ck
        check ((part is null) = (from_line is null) and (part is null) = (to_line is null)
            and from_line >= 1 and to_line >= from_line)
);
create index remark_sheet_answer_ix on remark (sheet_answer_id);

-- How long an answer was looked at, by window, so that a window may tell its sum again and again.
create table active_time (
    sheet_answer_id  uuid   not null references sheet_answer (id),
    window_id        uuid   not null,
    ms               bigint not null,
    constraint active_time_pk primary key (sheet_answer_id, window_id),
    constraint active_time_ms_ck check (ms >= 0)
);

-- A lead's word to a rater, inside the application.
create table reminder (
    id        uuid        primary key,
    study_id  uuid        not null references study (id),
    rater_id  uuid        not null references account (id),
    sent_by   text        not null,
    words     text        not null,
    sent_at   timestamptz not null,
    -- absent until the rater put it away
    read_at   timestamptz
);
create index reminder_study_ix on reminder (study_id);
create index reminder_rater_ix on reminder (rater_id);

-- The history of changes holds every part of the desk in one form.
alter table grading_change disable trigger grading_change_append_only;
alter table grading_change
    add column part   varchar(20),
    add column item   varchar(80) not null default '',
    add column value  text;
update grading_change set
    part = case when criterion_id is null then 'REASON' else 'GRADE' end,
    item = coalesce(criterion_id::text, ''),
    value = case when criterion_id is null
        then json_build_object('text', reason)::text
        else json_strip_nulls(json_build_object('level', level, 'notApplicable', not_applicable))::text end;
alter table grading_change
    alter column part set not null,
    alter column item drop default,
    alter column value set not null,
    drop column criterion_id,
    drop column level,
    drop column not_applicable,
    drop column reason,
    add constraint grading_change_part_ck
        check (part in ('GRADE', 'REASON', 'WORKS', 'PREFERENCE', 'COVERAGE', 'REMARK', 'GUESS'));
alter table grading_change enable trigger grading_change_append_only;
