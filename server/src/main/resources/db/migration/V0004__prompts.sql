create table kind (
    id        uuid primary key,
    study_id  uuid not null references study (id),
    key       text not null,
    name      text not null,
    place     int  not null,
    constraint kind_key_uq unique (study_id, key),
    -- so that a prompt can only point at a kind of its own study
    constraint kind_of_study_uq unique (study_id, id)
);

create table prompt (
    id        uuid primary key,
    study_id  uuid not null references study (id),
    key       text not null,
    kind_id   uuid not null,
    title     text not null,
    language  text not null,
    request   text not null,
    place     int  not null,
    constraint prompt_key_uq unique (study_id, key),
    constraint prompt_kind_fk foreign key (study_id, kind_id) references kind (study_id, id)
);
create index prompt_kind_ix on prompt (study_id, kind_id);

create table key_point (
    prompt_id  uuid not null references prompt (id),
    place      int  not null,
    stance     text not null,
    text       text not null,
    constraint key_point_pk primary key (prompt_id, place),
    constraint key_point_stance_ck check (stance in ('MUST_CONTAIN', 'MUST_NOT'))
);
