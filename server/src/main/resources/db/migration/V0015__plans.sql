-- A sheet that comes a second time shows whether its rater agrees with themselves; it counts for nothing else.
alter table sheet
    add column repeat boolean not null default false,
    drop constraint sheet_rater_prompt_uq,
    add constraint sheet_rater_prompt_uq unique (study_id, rater_id, prompt_id, repeat);

-- How the round was planned; absent where an archive brought the sheets.
alter table round
    add column raters_an_answer  int,
    add column repeat_share      double precision,
    add column lead_was_blind    boolean not null default false,
    add constraint round_raters_an_answer_ck check (raters_an_answer >= 1),
    add constraint round_repeat_share_ck check (repeat_share between 0 and 0.5);
