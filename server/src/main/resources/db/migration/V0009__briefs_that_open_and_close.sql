-- A brief is written, closed, and reopened only with a reason. Studies from before came in closed.
alter table study
    add column asks_expectations  boolean     not null default false,
    add column brief_closed_at    timestamptz,
    add column coefficient        text        not null default 'ALPHA_ORDINAL',
    add column floor_on           text        not null default 'ESTIMATE',
    add column tie_break          text        not null default 'NONE',
    add column strict_on_masking  boolean     not null default false,
    add column strict_on_splits   boolean     not null default false,
    -- a criterion's key; a gate is whole or not there
    add column gate_criterion     text,
    add column gate_level         int,
    add column gate_cap           double precision,
    add constraint study_coefficient_ck check (coefficient in ('ALPHA_ORDINAL', 'AC2_ORDINAL')),
    add constraint study_floor_on_ck check (floor_on in ('ESTIMATE', 'LOWER_LIMIT')),
    add constraint study_tie_break_ck check (tie_break in ('NONE', 'COST', 'TIME')),
    add constraint study_gate_ck check (
        (gate_criterion is null) = (gate_level is null) and (gate_level is null) = (gate_cap is null)
        and gate_level >= 0 and gate_cap between 0 and 100);
update study set brief_closed_at = created_at;

create table brief_reopening (
    id           uuid        primary key,
    study_id     uuid        not null references study (id),
    closed_at    timestamptz not null,
    reopened_at  timestamptz not null,
    reopened_by  text        not null,
    reason       text        not null,
    -- the brief as it was closed, in words
    terms        text        not null,
    constraint brief_reopening_reason_ck check (length(reason) between 1 and 2000)
);
create index brief_reopening_study_ix on brief_reopening (study_id, reopened_at);

-- What a person expects before anything is seen.
create table expectation (
    study_id     uuid        not null references study (id),
    account_id   uuid        not null references account (id),
    expects      text        not null,
    uses_today   text        not null,
    declared_at  timestamptz not null,
    constraint expectation_pk primary key (study_id, account_id)
);
create index expectation_account_ix on expectation (account_id);

-- A lead may grade too, and is then as blind as any rater while the round is open.
alter table membership add column grades boolean not null default true;
update membership set grades = false where role = 'LEAD';
alter table membership add constraint membership_grades_ck check (grades or role = 'LEAD');
