-- A reply that was paid for but came when its cell was written down already. It is kept beside what counts.
alter table run_cell add column late_reply text;
