create table study (
    id               uuid             primary key,
    title            text             not null,
    question         text             not null,
    audience         text             not null,
    background       text             not null,
    agreement_floor  double precision not null,
    margin           double precision not null,
    minimum_raters   int              not null,
    seed             bigint           not null,
    created_at       timestamptz      not null,
    version          bigint           not null,
    constraint study_agreement_floor_ck check (agreement_floor between -1 and 1),
    constraint study_margin_ck check (margin between 0 and 100),
    constraint study_minimum_raters_ck check (minimum_raters >= 1)
);

create table membership (
    study_id    uuid not null references study (id),
    account_id  uuid not null references account (id),
    role        text not null,
    constraint membership_pk primary key (study_id, account_id),
    constraint membership_role_ck check (role in ('LEAD', 'RATER'))
);
create index membership_account_ix on membership (account_id);
