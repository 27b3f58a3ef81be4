-- Where a candidate can be asked. Secrets are here by name only.
create table source (
    candidate_id          uuid    primary key references candidate (id) on delete cascade,
    study_id              uuid    not null references study (id),
    url                   text    not null,
    method                text    not null,
    body                  text    not null,
    turn_asked            text    not null,
    turn_replied          text    not null,
    shape                 text    not null,
    text_pointer          text    not null,
    input_tokens_pointer  text    not null,
    output_tokens_pointer text    not null,
    finish_pointer        text    not null,
    complete_words        text[]  not null,
    refused_words         text[]  not null,
    end_mark              text    not null,
    most_output_tokens    int     not null,
    time_limit_ms         bigint  not null,
    most_tries            int     not null,
    most_at_once          int     not null,
    version               bigint  not null,
    constraint source_method_ck check (method in ('POST', 'PUT')),
    constraint source_shape_ck check (shape in ('WHOLE', 'EVENTS')),
    constraint source_limits_ck check (
        most_output_tokens >= 1 and time_limit_ms >= 1000 and most_tries >= 1 and most_at_once >= 1)
);
create index source_study_ix on source (study_id);

create table source_header (
    candidate_id  uuid not null references source (candidate_id) on delete cascade,
    place         int  not null,
    name          text not null,
    value         text not null,
    constraint source_header_pk primary key (candidate_id, place)
);
