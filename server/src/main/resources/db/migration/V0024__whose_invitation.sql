-- Who invited somebody: links to an account are theirs alone to make. Absent where nobody did.
alter table account add column invited_by uuid references account (id);
create index account_invited_by_ix on account (invited_by);

-- Somebody who has an account is asked, and belongs to the study once they accept.
alter table membership add column accepted boolean not null default true;
