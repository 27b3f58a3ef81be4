-- How often something may still be tried; kept by the library that counts, hence its columns.
create table sign_in_bucket (
    id          bigint primary key,
    state       bytea,
    expires_at  bigint
);
create index sign_in_bucket_expires_ix on sign_in_bucket (expires_at);

drop table sign_in_failure;

-- What several servers sign with alike.
create table signing_key (
    name        text        primary key,
    secret      bytea       not null,
    created_at  timestamptz not null,
    constraint signing_key_secret_ck check (length(secret) >= 32)
);
