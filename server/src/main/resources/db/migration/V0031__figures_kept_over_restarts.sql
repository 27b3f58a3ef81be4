-- What can be worked out again at any time: the figures of a study, by the revision that they hang on and by the code that
-- worked them out.
create table kept_figure (
    study_id uuid not null references study on delete cascade,
    sort text not null,
    revision bigint not null,
    code text not null,
    figures text not null,
    primary key (study_id, sort)
);
