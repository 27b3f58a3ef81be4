-- How often standings may be seen, fixed with the brief; and what was seen before grading ended.
alter table study
    add column looks integer not null default 1,
    add constraint study_looks_ck check (looks between 1 and 4);

create table look
(
    study_id uuid        not null,
    number   integer     not null,
    taken_at timestamptz not null,
    taken_by text        not null,
    counted  integer     not null,
    planned  integer     not null,
    outcome  text        not null,
    headline text        not null,
    report     text,
    robustness text,
    constraint look_pk primary key (study_id, number),
    constraint look_study_fk foreign key (study_id) references study,
    constraint look_counted_ck check (counted between 1 and planned)
);
