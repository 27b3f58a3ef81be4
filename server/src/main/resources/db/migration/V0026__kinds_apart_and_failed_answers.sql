-- Whether a rule tells kinds apart, and what an answer without any text counts for.
alter table study
    add column by_kind        boolean not null default false,
    add column failed_answers text    not null default 'LOWEST',
    add constraint study_failed_answers_ck check (failed_answers in ('LOWEST', 'LEFT_OUT'));
