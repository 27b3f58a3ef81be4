-- Where mail reaches somebody, and what they want of it.
create table mail_choice (
    account_id    uuid        not null references account (id),
    address       text        not null,
    -- since when it is known that the address is theirs
    confirmed_at  timestamptz,
    digest        boolean     not null default true,
    reminders     boolean     not null default true,
    -- the last day's letter was made
    digest_at     timestamptz,
    -- what the address's own server said when it took no mail; absent once it took some
    trouble       text,
    version       bigint      not null,
    constraint mail_choice_pk primary key (account_id),
    constraint mail_choice_address_ck check (length(address) between 3 and 254)
);

-- Letters hold links that only whoever reads them can know: an address is theirs once they used one.
create table mail_proof (
    token_hash  bytea       not null,
    account_id  uuid        not null references account (id),
    address     text        not null,
    expires_at  timestamptz not null,
    constraint mail_proof_pk primary key (token_hash)
);
create index mail_proof_account_ix on mail_proof (account_id);
