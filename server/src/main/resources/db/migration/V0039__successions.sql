-- That a study follows another. What it remembers of that one is kept with it, so that the two can be compared anywhere.
create table succession
(
    study_id uuid not null,
    -- JSON in the form in which the code has it
    before   text not null,
    constraint succession_pk primary key (study_id),
    constraint succession_study_fk foreign key (study_id) references study
);
