-- When a round was closed for the first time: from then on raters knew names.
alter table round
    add column names_opened_at timestamptz;
update round set names_opened_at = closed_at;
