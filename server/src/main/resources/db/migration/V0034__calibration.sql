-- Before the round raters learn the ruler together: on prompts that everybody grades first and that count nowhere.
create table calibration
(
    study_id              uuid        not null,
    -- from 1
    number                int         not null,
    begun_at              timestamptz not null,
    -- a name: it stays what it was
    begun_by              text        not null,
    -- the published version of the rubric that was graded by
    rubric_version        int         not null,
    -- when all had sent in and saw each other's grades; absent until then
    talk_opened_at        timestamptz,
    -- when it was graded again, and by which version; absent unless it was
    again_at              timestamptz,
    again_rubric_version  int,
    constraint calibration_pk primary key (study_id, number),
    constraint calibration_study_fk foreign key (study_id) references study,
    constraint calibration_number_ck check (number >= 1),
    constraint calibration_again_ck check (
        (again_at is null) = (again_rubric_version is null) and (again_at is null or talk_opened_at is not null))
);

-- The calibration that a prompt is for; absent where it counts.
alter table prompt
    add column calibration int,
    add constraint prompt_calibration_fk foreign key (study_id, calibration) references calibration
        deferrable initially deferred;

create index prompt_calibration_ix on prompt (study_id, calibration);

-- The version of the rubric that a sheet is graded by; absent for the one in use.
alter table sheet add column rubric_version int;

-- A round in which raters only calibrate so far was not opened yet.
alter table round alter column opened_at drop not null;

-- What somebody says of an answer while raters calibrate; rows are only ever added.
create table calibration_word
(
    id            uuid        not null,
    study_id      uuid        not null,
    number        int         not null,
    answer_id     uuid        not null,
    -- absent for a word on the answer as a whole
    criterion_id  uuid,
    -- the lines of the answer's text that it is about, from 1; absent for a word on no line
    from_line     int,
    to_line       int,
    author_id     uuid        not null,
    words         text        not null,
    said_at       timestamptz not null,
    -- whether they could see then which candidate wrote the answer
    names_known   boolean     not null,
    constraint calibration_word_pk primary key (id),
    constraint calibration_word_calibration_fk foreign key (study_id, number) references calibration,
    constraint calibration_word_answer_fk foreign key (answer_id) references answer,
    constraint calibration_word_criterion_fk foreign key (criterion_id) references criterion,
    constraint calibration_word_author_fk foreign key (author_id) references account,
    constraint calibration_word_lines_ck check ((from_line is null) = (to_line is null) and from_line >= 1 and to_line >= from_line)
);
create index calibration_word_calibration_ix on calibration_word (study_id, number, said_at);
create index calibration_word_answer_ix on calibration_word (answer_id);
create index calibration_word_criterion_ix on calibration_word (criterion_id);
create index calibration_word_author_ix on calibration_word (author_id);
create trigger calibration_word_append_only before update or delete on calibration_word
    for each row execute function talk_is_append_only();

-- At which level an answer should stand: as people who know said beforehand, or as all settled on in the talk.
create table agreed_level
(
    study_id      uuid        not null,
    number        int         not null,
    answer_id     uuid        not null,
    criterion_id  uuid        not null,
    source        varchar(20) not null,
    level         int         not null,
    reason        text        not null,
    -- names: they stay what they were
    said_by       text        not null,
    said_at       timestamptz not null,
    constraint agreed_level_pk primary key (study_id, number, answer_id, criterion_id, source),
    constraint agreed_level_calibration_fk foreign key (study_id, number) references calibration,
    constraint agreed_level_answer_fk foreign key (answer_id) references answer,
    constraint agreed_level_criterion_fk foreign key (criterion_id) references criterion,
    constraint agreed_level_source_ck check (source in ('REFERENCE', 'SETTLED')),
    constraint agreed_level_level_ck check (level >= 0)
);
create index agreed_level_answer_ix on agreed_level (answer_id);
create index agreed_level_criterion_ix on agreed_level (criterion_id);

-- Another wording of what a level looks like, for the rubric's next version.
create table anchor_proposal
(
    id              uuid        not null,
    study_id        uuid        not null,
    criterion_key   text        not null,
    kind_id         uuid        not null,
    level           int         not null,
    words           text        not null,
    why             text        not null,
    -- names: they stay what they were
    proposed_by     text        not null,
    proposed_at     timestamptz not null,
    state           varchar(20) not null,
    -- the three below are absent while it waits
    decided_by      text,
    decided_at      timestamptz,
    -- the version that it came into
    rubric_version  int,
    constraint anchor_proposal_pk primary key (id),
    constraint anchor_proposal_study_fk foreign key (study_id) references study,
    constraint anchor_proposal_kind_fk foreign key (kind_id) references kind,
    constraint anchor_proposal_state_ck check (state in ('WAITING', 'TAKEN', 'DECLINED')),
    constraint anchor_proposal_level_ck check (level >= 0),
    constraint anchor_proposal_decided_ck check (
        (state = 'WAITING') = (decided_by is null) and (state = 'WAITING') = (decided_at is null)
            and (state = 'TAKEN') = (rubric_version is not null))
);
create index anchor_proposal_study_ix on anchor_proposal (study_id, proposed_at);
create index anchor_proposal_kind_ix on anchor_proposal (kind_id);
