-- Pictures that were taken of pages in trials, and in trials of repairs. They go with them.
create table page_picture
(
    id        uuid  not null,
    study_id  uuid  not null,
    trial_id  uuid,
    repair_id uuid,
    -- in the order in which the result tells of them
    place     int   not null,
    -- how large it is, so that a study's can be counted without reading them
    bytes     int   not null,
    png       bytea not null,
    constraint page_picture_pk primary key (id),
    constraint page_picture_study_fk foreign key (study_id) references study,
    constraint page_picture_trial_fk foreign key (trial_id) references trial on delete cascade,
    constraint page_picture_repair_fk foreign key (repair_id) references repair on delete cascade,
    constraint page_picture_of_ck check ((trial_id is null) <> (repair_id is null)),
    constraint page_picture_place_ck check (place between 0 and 23),
    constraint page_picture_bytes_ck check (bytes = octet_length(png)),
    constraint page_picture_trial_uq unique (trial_id, place),
    constraint page_picture_repair_uq unique (repair_id, place)
);
create index page_picture_study_ix on page_picture (study_id);
