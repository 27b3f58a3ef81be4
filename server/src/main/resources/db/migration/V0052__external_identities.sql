-- Who somebody is at a provider of sign-ins: matched by the provider's own name for them, never by an address.
create table external_identity (
    issuer      text        not null,
    subject     text        not null,
    account_id  uuid        not null references account (id),
    provider    text        not null,
    shown_as    text        not null,
    created_at  timestamptz not null,
    used_at     timestamptz not null,
    constraint external_identity_pk primary key (issuer, subject),
    constraint external_identity_issuer_ck check (length(issuer) between 1 and 2000),
    constraint external_identity_subject_ck check (length(subject) between 1 and 255)
);
create index external_identity_account_ix on external_identity (account_id);

-- Whether somebody can come in without a password of ours.
alter table account add column identified boolean not null default false;
