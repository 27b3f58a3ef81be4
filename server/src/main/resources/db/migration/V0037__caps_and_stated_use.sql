-- The limit of a plan that stops a person first, where it can be counted.
alter table candidate
    add column cap_amount bigint,
    add column cap_unit   varchar(20),
    add column cap_period varchar(20),
    add constraint candidate_cap_ck check ((cap_amount is null) = (cap_unit is null) and (cap_amount is null) = (cap_period is null)),
    add constraint candidate_cap_amount_ck check (cap_amount between 0 and 1000000000000),
    add constraint candidate_cap_unit_ck check (cap_unit in ('PROMPTS', 'TOKENS')),
    add constraint candidate_cap_period_ck check (cap_period in ('DAY', 'WEEK', 'MONTH'));

-- How the team would use what it chooses, so that a month of it can be priced. It decides nothing.
create table stated_use
(
    study_id     uuid             not null,
    people       int              not null,
    tasks_per_day  double precision not null,
    days_per_month int              not null,
    stated_at    timestamptz      not null,
    -- a name: it stays what it was
    stated_by    text             not null,
    constraint stated_use_pk primary key (study_id),
    constraint stated_use_study_fk foreign key (study_id) references study,
    constraint stated_use_people_ck check (people between 1 and 100000),
    constraint stated_use_tasks_ck check (tasks_per_day > 0 and tasks_per_day <= 10000),
    constraint stated_use_days_ck check (days_per_month between 1 and 31)
);
