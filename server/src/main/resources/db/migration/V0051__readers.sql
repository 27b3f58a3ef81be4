-- Who sees what raters see once a round is closed, and grades nothing: to a server of the release before, a rater without sheets.
alter table membership
    add column reads boolean not null default false,
    drop constraint membership_grades_ck,
    add constraint membership_grades_ck check (grades or role = 'LEAD' or reads),
    add constraint membership_reads_ck check (not reads or (role = 'RATER' and not grades));
