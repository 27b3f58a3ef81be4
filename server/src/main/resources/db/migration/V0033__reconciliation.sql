-- The talk about a split, and the settled grade it ends in. Original grades stay where they are.
create table reconciliation
(
    id               uuid        not null,
    study_id         uuid        not null,
    answer_id        uuid        not null,
    criterion_id     uuid        not null,
    taken_up_at      timestamptz not null,
    -- a name: it stays what it was
    taken_up_by      text        not null,
    state            varchar(20) not null,
    -- the four below are absent while it is open
    how              varchar(20),
    closed_at        timestamptz,
    closed_by        text,
    closed_knowing   boolean,
    -- in levels; a median may lie between two; absent unless it is settled
    settled_level    double precision,
    closing_reason   text        not null,
    constraint reconciliation_pk primary key (id),
    constraint reconciliation_split_uq unique (answer_id, criterion_id),
    constraint reconciliation_study_fk foreign key (study_id) references study,
    constraint reconciliation_answer_fk foreign key (answer_id) references answer,
    constraint reconciliation_criterion_fk foreign key (criterion_id) references criterion,
    constraint reconciliation_state_ck check (state in ('OPEN', 'SETTLED', 'LEFT_OPEN')),
    constraint reconciliation_how_ck check (how in ('CONSENT', 'LEAD', 'THIRD_LOOK')),
    constraint reconciliation_closed_ck check (
        (state = 'OPEN') = (closed_at is null) and (state = 'OPEN') = (closed_by is null)
            and (state = 'OPEN') = (closed_knowing is null) and (state = 'OPEN') = (how is null)),
    constraint reconciliation_settled_ck check (
        (state = 'SETTLED') = (settled_level is not null) and settled_level >= 0)
);
create index reconciliation_study_ix on reconciliation (study_id);
create index reconciliation_criterion_ix on reconciliation (criterion_id);

-- What somebody says in the talk; rows are only ever added.
create table split_word
(
    id                 uuid        not null,
    reconciliation_id  uuid        not null,
    author_id          uuid        not null,
    words              text        not null,
    said_at            timestamptz not null,
    -- whether they could see then which candidate wrote the answer
    names_known        boolean     not null,
    constraint split_word_pk primary key (id),
    constraint split_word_reconciliation_fk foreign key (reconciliation_id) references reconciliation,
    constraint split_word_author_fk foreign key (author_id) references account
);
create index split_word_reconciliation_ix on split_word (reconciliation_id, said_at);
create index split_word_author_ix on split_word (author_id);

-- The level at which a rater stands after the talk; rows are only ever added, the newest counts.
create table stance
(
    id                 uuid        not null,
    reconciliation_id  uuid        not null,
    rater_id           uuid        not null,
    level              int         not null,
    reason             text        not null,
    taken_at           timestamptz not null,
    names_known        boolean     not null,
    constraint stance_pk primary key (id),
    constraint stance_reconciliation_fk foreign key (reconciliation_id) references reconciliation,
    constraint stance_rater_fk foreign key (rater_id) references account,
    constraint stance_level_ck check (level >= 0)
);
create index stance_reconciliation_ix on stance (reconciliation_id, taken_at);
create index stance_rater_ix on stance (rater_id);

create function talk_is_append_only() returns trigger language plpgsql as $$
begin
    raise exception 'what was said is only ever added to';
end $$;
create trigger split_word_append_only before update or delete on split_word
    for each row execute function talk_is_append_only();
create trigger stance_append_only before update or delete on stance
    for each row execute function talk_is_append_only();

-- A blind look of somebody who sees no grades.
create table third_look
(
    reconciliation_id  uuid        not null,
    rater_id           uuid        not null,
    asked_at           timestamptz not null,
    asked_by           text        not null,
    -- the three below are absent until it is given
    level              int,
    reason             text,
    given_at           timestamptz,
    constraint third_look_pk primary key (reconciliation_id, rater_id),
    constraint third_look_reconciliation_fk foreign key (reconciliation_id) references reconciliation,
    constraint third_look_rater_fk foreign key (rater_id) references account,
    constraint third_look_given_ck check (
        (level is null) = (given_at is null) and (reason is null) = (given_at is null) and level >= 0)
);
create index third_look_rater_ix on third_look (rater_id);

-- Who has read a talk, and with it what others gave; from then on their own grades stay as they are.
create table talk_reading
(
    reconciliation_id  uuid        not null,
    reader_id          uuid        not null,
    first_read_at      timestamptz not null,
    last_read_at       timestamptz not null,
    constraint talk_reading_pk primary key (reconciliation_id, reader_id),
    constraint talk_reading_reconciliation_fk foreign key (reconciliation_id) references reconciliation,
    constraint talk_reading_reader_fk foreign key (reader_id) references account
);
create index talk_reading_reader_ix on talk_reading (reader_id);
