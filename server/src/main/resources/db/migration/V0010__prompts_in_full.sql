alter table prompt
    add column areas             text[]      not null default '{}',
    -- absent where nobody said
    add column size              text,
    add column constraints       text[]      not null default '{}',
    add column follow_ups        text[]      not null default '{}',
    add column reference_answer  text        not null default '',
    -- where the starting code came from; whole or not there
    add column repository        text,
    add column commit_id         text,
    add column author_id         uuid        references account (id),
    -- another wording of the same request
    add column variant_of        uuid        references prompt (id),
    add column wording           text,
    add column bank_prompt_id    uuid,
    add column bank_version      int,
    add column version           bigint      not null default 0,
    add constraint prompt_size_ck check (size in ('SMALL', 'MEDIUM', 'LARGE')),
    add constraint prompt_origin_ck check ((repository is null) = (commit_id is null)),
    add constraint prompt_wording_ck check (wording in ('VAGUE', 'EXACT', 'OTHER') and variant_of <> id),
    add constraint prompt_bank_ck check ((bank_prompt_id is null) = (bank_version is null));
create index prompt_author_ix on prompt (author_id);
create index prompt_variant_of_ix on prompt (variant_of);
create index prompt_bank_ix on prompt (bank_prompt_id, bank_version);

alter table key_point
    add column weight     double precision not null default 1,
    add column file       text,
    add column from_line  int,
    add column to_line    int,
    add constraint key_point_weight_ck check (weight > 0),
    add constraint key_point_lines_ck check (
        (from_line is null) = (to_line is null) and from_line >= 1 and to_line >= from_line
        and (from_line is null or file is not null));

create table starting_file (
    prompt_id  uuid not null references prompt (id),
    place      int  not null,
    path       text not null,
    text       text not null,
    constraint starting_file_pk primary key (prompt_id, place),
    constraint starting_file_path_uq unique (prompt_id, path)
);

-- A prompt that turned out faulty counts nowhere; it stays on record with the reason.
create table prompt_fault (
    id             uuid        primary key,
    prompt_id      uuid        not null references prompt (id),
    found_at       timestamptz not null,
    found_by       text        not null,
    reason         text        not null,
    taken_back_at  timestamptz,
    constraint prompt_fault_reason_ck check (length(reason) between 1 and 2000)
);
create index prompt_fault_prompt_ix on prompt_fault (prompt_id);
create unique index prompt_fault_standing_uq on prompt_fault (prompt_id) where taken_back_at is null;

-- A second developer says what they think is asked.
create table read_back (
    id           uuid        primary key,
    prompt_id    uuid        not null references prompt (id),
    reader_id    uuid        not null references account (id),
    asked_at     timestamptz not null,
    answer       text,
    answered_at  timestamptz,
    verdict      text,
    constraint read_back_uq unique (prompt_id, reader_id),
    constraint read_back_answer_ck check ((answer is null) = (answered_at is null)),
    constraint read_back_verdict_ck check (verdict is null or (verdict in ('UNDERSTOOD', 'UNCLEAR') and answer is not null))
);
create index read_back_reader_ix on read_back (reader_id);
