create table account (
    id              uuid        primary key,
    sign_in_name    text        not null,
    display_name    text        not null,
    -- absent until a one-time link was used
    password_hash   text,
    may_bring_in    boolean     not null,
    created_at      timestamptz not null,
    version         bigint      not null,
    constraint account_sign_in_name_uq unique (sign_in_name),
    constraint account_sign_in_name_ck check (sign_in_name ~ '^[a-z0-9][a-z0-9._-]{0,63}$'),
    constraint account_display_name_ck check (length(display_name) between 1 and 200)
);

create table one_time_link (
    -- SHA-256 of the token; the token itself is nowhere
    token_hash  bytea       primary key,
    account_id  uuid        not null references account (id) on delete cascade,
    expires_at  timestamptz not null
);
create index one_time_link_account_ix on one_time_link (account_id);

create table sign_in_failure (
    id       bigint generated always as identity primary key,
    subject  text        not null,
    at       timestamptz not null
);
create index sign_in_failure_subject_ix on sign_in_failure (subject, at);
