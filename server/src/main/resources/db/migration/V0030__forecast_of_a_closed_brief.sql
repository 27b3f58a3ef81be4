-- What such a study was thought to show when its brief was closed.
alter table study
    add column forecast text;
