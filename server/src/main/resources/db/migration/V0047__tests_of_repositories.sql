-- How many tests of a repository an answer broke and mended, as tables tell it without reading each result.
alter table trial
    add column broken int not null default 0,
    add column mended int not null default 0,
    add constraint trial_tests_ck check (broken >= 0 and mended >= 0);
