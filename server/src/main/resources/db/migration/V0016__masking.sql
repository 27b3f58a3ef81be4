-- What raters do not read of an answer, as the lead decided; the answer itself stays as it is.
create table masking (
    study_id  uuid    primary key references study (id),
    -- words that give candidates away beside their names and versions
    words     text[]  not null,
    version   bigint  not null
);

insert into masking (study_id, words, version) select id, '{}', 0 from study;

create table mask (
    id           uuid        primary key,
    answer_id    uuid        not null references answer (id) on delete cascade,
    -- characters of the answer's text, from 0; the second is after the last one
    span_from    int         not null,
    span_to      int         not null,
    found        text        not null,
    sort         text        not null,
    replacement  text        not null,
    accepted     boolean     not null,
    decided_at   timestamptz not null,
    constraint mask_span_uq unique (answer_id, span_from),
    constraint mask_span_ck check (span_from >= 0 and span_to > span_from and length(found) > 0),
    constraint mask_sort_ck check (sort in ('NAME', 'VENDOR', 'VERSION', 'SIGNATURE', 'SELF_INTRODUCTION'))
);
