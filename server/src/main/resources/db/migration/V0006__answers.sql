create table answer (
    id               uuid   primary key,
    study_id         uuid   not null references study (id),
    key              text   not null,
    prompt_id        uuid   not null references prompt (id),
    candidate_id     uuid   not null references candidate (id),
    attempt          int    not null,
    outcome          text   not null,
    text             text   not null,
    -- absent where nobody measured it
    first_output_ms  bigint,
    total_ms         bigint,
    input_tokens     bigint,
    output_tokens    bigint,
    cost             numeric(14, 6),
    currency         char(3),
    constraint answer_key_uq unique (study_id, key),
    constraint answer_attempt_uq unique (prompt_id, candidate_id, attempt),
    constraint answer_attempt_ck check (attempt >= 1),
    constraint answer_outcome_ck check (outcome in ('COMPLETE', 'INCOMPLETE', 'REFUSED', 'FAILED', 'TIMED_OUT')),
    constraint answer_measures_ck check (
        first_output_ms >= 0 and total_ms >= 0 and input_tokens >= 0 and output_tokens >= 0 and cost >= 0),
    constraint answer_currency_ck check ((cost is null) = (currency is null))
);
create index answer_candidate_ix on answer (candidate_id);
