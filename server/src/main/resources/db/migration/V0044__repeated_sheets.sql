-- Few sheets are repeats, and figures ask for them alone: without this every sheet of a study is looked at for them.
create index sheet_repeat_ix on sheet (study_id) where repeat;
