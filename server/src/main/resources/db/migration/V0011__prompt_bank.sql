-- The team's own prompts, kept over studies. A study takes a copy of a version.
create table bank_prompt (
    id          uuid        primary key,
    created_at  timestamptz not null
);

create table bank_version (
    bank_prompt_id  uuid        not null references bank_prompt (id),
    number          int         not null,
    kind            text        not null,
    title           text        not null,
    -- the prompt as JSON, in the form in which the interface shows it
    content         text        not null,
    saved_at        timestamptz not null,
    saved_by        text        not null,
    constraint bank_version_pk primary key (bank_prompt_id, number),
    constraint bank_version_number_ck check (number >= 1)
);

alter table prompt add constraint prompt_bank_fk
    foreign key (bank_prompt_id, bank_version) references bank_version (bank_prompt_id, number);
