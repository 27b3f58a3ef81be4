-- The memo, version by version: what the lead writes, on figures that live until it is signed.
create table memo
(
    id         uuid        not null,
    study_id   uuid        not null,
    -- from 1
    number     int         not null,
    -- how those who graded are called
    names      varchar(20) not null,
    -- what the lead writes, by part, as JSON in the form in which the code has it
    words      text        not null,
    -- what this version says otherwise than the one before, and why; empty in the first
    change     text        not null,
    begun_at   timestamptz not null,
    -- names: they stay what they were
    begun_by   text        not null,
    -- all absent while it is being written; the name stays what it was, the account is absent where an archive brought it
    signed_at  timestamptz,
    signer_id  uuid,
    signed_by  text,
    version    bigint      not null,
    constraint memo_pk primary key (id),
    constraint memo_number_uq unique (study_id, number),
    constraint memo_study_fk foreign key (study_id) references study,
    constraint memo_names_ck check (names in ('BY_NAME', 'PSEUDONYM', 'NOT_AT_ALL')),
    constraint memo_number_ck check (number >= 1),
    constraint memo_signer_fk foreign key (signer_id) references account,
    constraint memo_signed_ck check ((signed_at is null) = (signed_by is null) and (signed_at is not null or signer_id is null))
);
create index memo_signer_ix on memo (signer_id);
-- One is written at a time.
create unique index memo_draft_uq on memo (study_id) where signed_at is null;

-- What was signed, as it was then.
create table memo_frozen
(
    memo_id           uuid  not null,
    -- JSON in the form in which the code has it
    document          text  not null,
    appendix          text  not null,
    -- the archive that its figures rest on, and its SHA-256 in hexadecimal
    archive           bytea not null,
    archive_checksum  text  not null,
    constraint memo_frozen_pk primary key (memo_id),
    constraint memo_frozen_memo_fk foreign key (memo_id) references memo
);

create function signed_memos_stay() returns trigger language plpgsql as $$
begin
    raise exception 'a signed memo stays as it is';
end $$;
create trigger memo_signed_stays before update or delete on memo
    for each row when (old.signed_at is not null) execute function signed_memos_stay();
create trigger memo_frozen_stays before update or delete on memo_frozen
    for each row execute function signed_memos_stay();

-- Where a rater sees it otherwise, and wishes it said.
create table memo_dissent
(
    memo_id   uuid        not null,
    rater_id  uuid        not null,
    words     text        not null,
    said_at   timestamptz not null,
    constraint memo_dissent_pk primary key (memo_id, rater_id),
    constraint memo_dissent_memo_fk foreign key (memo_id) references memo on delete cascade,
    constraint memo_dissent_rater_fk foreign key (rater_id) references account
);
create index memo_dissent_rater_ix on memo_dissent (rater_id);

-- What is added to a signed memo: a second signature, what was decided in the end, a note later. Rows are only ever added.
create table memo_entry
(
    id          uuid        not null,
    memo_id     uuid        not null,
    sort        varchar(20) not null,
    words       text        not null,
    -- who decided, where that is said; empty elsewhere
    decided_by  text        not null,
    -- absent where an archive brought it
    author_id   uuid,
    -- a name: it stays what it was
    added_by    text        not null,
    added_at    timestamptz not null,
    constraint memo_entry_pk primary key (id),
    constraint memo_entry_memo_fk foreign key (memo_id) references memo,
    constraint memo_entry_author_fk foreign key (author_id) references account,
    constraint memo_entry_sort_ck check (sort in ('COUNTERSIGNED', 'DECIDED', 'NOTE'))
);
create index memo_entry_memo_ix on memo_entry (memo_id, added_at);
create index memo_entry_author_ix on memo_entry (author_id);
-- Nobody signs twice.
create unique index memo_entry_countersigned_uq on memo_entry (memo_id, author_id) where sort = 'COUNTERSIGNED';
create trigger memo_entry_append_only before update or delete on memo_entry
    for each row execute function signed_memos_stay();

-- A link with which somebody without an account reads a signed memo, and nothing else. Holds only the hash of its token.
create table memo_link
(
    id            uuid        not null,
    memo_id       uuid        not null,
    token_hash    bytea       not null,
    made_at       timestamptz not null,
    made_by       text        not null,
    expires_at    timestamptz not null,
    withdrawn_at  timestamptz,
    constraint memo_link_pk primary key (id),
    constraint memo_link_token_uq unique (token_hash),
    constraint memo_link_memo_fk foreign key (memo_id) references memo
);
create index memo_link_memo_ix on memo_link (memo_id);
