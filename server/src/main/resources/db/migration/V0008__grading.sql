create table round (
    study_id   uuid        primary key references study (id),
    opened_at  timestamptz not null,
    -- absent while raters may grade
    closed_at  timestamptz,
    -- counts up with every change in which sheets are sent in: derived figures are cached by it
    revision   bigint      not null
);

create table sheet (
    id         uuid primary key,
    study_id   uuid not null references round (study_id),
    prompt_id  uuid not null references prompt (id),
    rater_id   uuid not null references account (id),
    place      int  not null,
    -- absent while the rater works on it
    sent_at    timestamptz,
    constraint sheet_rater_prompt_uq unique (study_id, rater_id, prompt_id),
    constraint sheet_place_uq unique (study_id, rater_id, place)
);
create index sheet_prompt_ix on sheet (prompt_id);
create index sheet_rater_ix on sheet (rater_id);

create table sheet_answer (
    id               uuid   primary key,
    sheet_id         uuid   not null references sheet (id),
    answer_id        uuid   not null references answer (id),
    place            int    not null,
    reason           text   not null,
    reason_revision  bigint not null,
    constraint sheet_answer_uq unique (sheet_id, answer_id),
    constraint sheet_answer_place_uq unique (sheet_id, place)
);
create index sheet_answer_answer_ix on sheet_answer (answer_id);

create table grade (
    sheet_answer_id  uuid    not null references sheet_answer (id),
    criterion_id     uuid    not null references criterion (id),
    -- absent when not applicable, or taken back
    level            int,
    not_applicable   boolean not null,
    revision         bigint  not null,
    constraint grade_pk primary key (sheet_answer_id, criterion_id),
    constraint grade_level_ck check (level >= 0 and not (level is not null and not_applicable))
);
create index grade_criterion_ix on grade (criterion_id);

-- Every change of a grade or a reason, in order; rows are only ever added.
create table grading_change (
    change_id        uuid        primary key,
    sheet_answer_id  uuid        not null references sheet_answer (id),
    -- absent when the reason changed
    criterion_id     uuid        references criterion (id),
    level            int,
    not_applicable   boolean     not null,
    reason           text,
    revision         bigint      not null,
    made_at          timestamptz not null
);
create index grading_change_sheet_answer_ix on grading_change (sheet_answer_id, made_at);
create index grading_change_criterion_ix on grading_change (criterion_id);

create function grading_change_is_append_only() returns trigger language plpgsql as $$
begin
    raise exception 'grading_change is append-only';
end $$;
create trigger grading_change_append_only before update or delete on grading_change
    for each row execute function grading_change_is_append_only();
