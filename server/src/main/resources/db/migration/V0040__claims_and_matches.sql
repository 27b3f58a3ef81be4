-- Figures that others published of candidates, written down before anybody grades.
create table claim
(
    study_id         uuid             not null,
    place            int              not null,
    candidate_id     uuid             not null,
    measure          text             not null,
    figure           double precision not null,
    higher_is_better boolean          not null,
    source           text             not null,
    as_of            date,
    constraint claim_pk primary key (study_id, place),
    constraint claim_study_fk foreign key (study_id) references study,
    constraint claim_candidate_fk foreign key (candidate_id) references candidate on delete cascade
);
create index claim_candidate_ix on claim (candidate_id);

-- Which candidate a lead takes somebody's words for, once grading has ended.
create table words_taken
(
    study_id     uuid not null,
    account_id   uuid not null,
    candidate_id uuid not null,
    constraint words_taken_pk primary key (study_id, account_id),
    constraint words_taken_study_fk foreign key (study_id) references study,
    constraint words_taken_account_fk foreign key (account_id) references account,
    constraint words_taken_candidate_fk foreign key (candidate_id) references candidate on delete cascade
);
create index words_taken_account_ix on words_taken (account_id);
create index words_taken_candidate_ix on words_taken (candidate_id);
