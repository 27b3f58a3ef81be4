create table candidate (
    id        uuid primary key,
    study_id  uuid not null references study (id),
    key       text not null,
    name      text not null,
    version   text not null,
    settings  text not null,
    note      text not null,
    place     int  not null,
    constraint candidate_key_uq unique (study_id, key),
    constraint candidate_name_uq unique (study_id, name, version, settings)
);
