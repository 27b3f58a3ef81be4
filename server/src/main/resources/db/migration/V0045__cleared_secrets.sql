-- What looks like a secret in what candidates are sent, and may be sent all the same. The secret itself is not here.
create table cleared_secret (
    study_id   uuid        not null references study (id) on delete cascade,
    digest     text        not null,
    why        text        not null,
    cleared_at timestamptz not null,
    cleared_by text        not null,
    primary key (study_id, digest),
    constraint cleared_secret_digest_ck check (digest ~ '^[0-9a-f]{64}$'),
    constraint cleared_secret_why_ck check (why <> '')
);
