-- Words of a text as they are looked for: without endings taken off, as much of it is code, and of so much of it as an index takes.
-- What stands in angles would be taken for marks of HTML and left out: other signs stand for them.
create function words_of(text) returns tsvector
    language sql immutable parallel safe as
$$
select to_tsvector('simple'::regconfig, translate(left($1, 65536), '<>', U&'\E000\E001'))
$$;

create index prompt_words_ix on prompt using gin (words_of(title || ' ' || request));
create index answer_words_ix on answer using gin (words_of(text));
create index remark_words_ix on remark using gin (words_of(words)) where not removed;
create index sheet_answer_words_ix on sheet_answer using gin (words_of(reason)) where reason <> '';
