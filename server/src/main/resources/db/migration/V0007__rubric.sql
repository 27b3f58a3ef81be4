create table criterion (
    id             uuid             primary key,
    study_id       uuid             not null references study (id),
    key            text             not null,
    name           text             not null,
    question       text             not null,
    weight         double precision not null,
    highest_level  int              not null,
    place          int              not null,
    constraint criterion_key_uq unique (study_id, key),
    constraint criterion_weight_ck check (weight >= 0),
    constraint criterion_highest_level_ck check (highest_level between 1 and 9)
);

create table level (
    criterion_id  uuid not null references criterion (id),
    level         int  not null,
    name          text not null,
    constraint level_pk primary key (criterion_id, level)
);

create table anchor (
    criterion_id  uuid not null references criterion (id),
    kind_id       uuid not null references kind (id),
    level         int  not null,
    text          text not null,
    constraint anchor_pk primary key (criterion_id, kind_id, level)
);
create index anchor_kind_ix on anchor (kind_id);
