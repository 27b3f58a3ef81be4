-- Asking candidates over their sources. What is to be done is claimed from here, so that any server may do it.
create table run (
    id              uuid        primary key,
    study_id        uuid        not null references study (id),
    key             text        not null,
    started_by      text        not null,
    started_at      timestamptz not null,
    attempts        int         not null,
    follow_ups      int         not null,
    -- what may be spent at most; absent where there is no limit
    budget_cost     numeric(14, 6),
    budget_tokens   bigint,
    -- of all that the run spends; absent if no candidate has a price
    currency        char(3),
    state           text        not null,
    -- why it does not go on
    reason          text        not null,
    -- whether what is under way is to be ended
    cut             boolean     not null,
    version         bigint      not null,
    constraint run_key_uq unique (study_id, key),
    constraint run_state_ck check (state in ('RUNNING', 'PAUSED', 'FINISHED')),
    constraint run_limits_ck check (attempts >= 1 and follow_ups >= 0 and budget_cost >= 0 and budget_tokens >= 0)
);
create index run_going_ix on run (started_at) where state = 'RUNNING';

create table run_cell (
    id               uuid        primary key,
    run_id           uuid        not null references run (id) on delete cascade,
    place            int         not null,
    -- cells of one group are one prompt's, and are asked close together in time
    group_no         int         not null,
    prompt_id        uuid        not null references prompt (id) on delete cascade,
    candidate_id     uuid        not null references candidate (id) on delete cascade,
    attempt          int         not null,
    state            text        not null,
    -- what is asked in place of the prepared follow-up, for this answer alone
    own_follow_up    text,
    -- 0 for the first reply, then the follow-ups
    turn             int         not null,
    tries            int         not null,
    not_before       timestamptz,
    owner            uuid,
    lease_until      timestamptz,
    asked_at         timestamptz,
    first_output_ms  bigint,
    partial          text        not null,
    -- the most that what is under way can take
    reserved_cost    numeric(14, 6) not null,
    reserved_tokens  bigint      not null,
    spent_cost       numeric(14, 6) not null,
    spent_tokens     bigint      not null,
    -- every try that brought nothing, and how it ended, a line each
    notes            text        not null,
    -- of the answer, once there is one
    outcome          text,
    answer_id        uuid        references answer (id) on delete set null,
    version          bigint      not null,
    constraint run_cell_place_uq unique (run_id, place),
    constraint run_cell_state_ck check (state in ('WAITING', 'ASKING', 'DONE', 'TURNED_AWAY')),
    constraint run_cell_outcome_ck check (
        outcome in ('COMPLETE', 'INCOMPLETE', 'REFUSED', 'FAILED', 'TIMED_OUT')),
    constraint run_cell_owner_ck check ((state = 'ASKING') = (owner is not null and lease_until is not null)),
    constraint run_cell_amounts_ck check (
        turn >= 0 and tries >= 0 and reserved_cost >= 0 and reserved_tokens >= 0 and spent_cost >= 0 and spent_tokens >= 0)
);
create index run_cell_asking_ix on run_cell (lease_until) where state = 'ASKING';
create index run_cell_waiting_ix on run_cell (run_id, place) where state = 'WAITING';
create index run_cell_prompt_ix on run_cell (prompt_id);
create index run_cell_candidate_ix on run_cell (candidate_id);
create index run_cell_answer_ix on run_cell (answer_id);
