-- What a candidate was told after its first reply, and what it replied.
create table follow_up (
    answer_id  uuid not null references answer (id) on delete cascade,
    place      int  not null,
    asked      text not null,
    reply      text not null,
    constraint follow_up_pk primary key (answer_id, place)
);

alter table answer
    -- whether token counts and cost are estimates, because none were given
    add column estimated      boolean not null default false,
    -- how often it was asked until something came; absent where nobody counted
    add column tries          int,
    -- how much of the starting code it changes, taken from its text when it is written
    add column files_changed  int     not null default 0,
    add column lines_added    int     not null default 0,
    add column lines_removed  int     not null default 0,
    add constraint answer_tries_ck check (tries >= 1);

-- When to give up: the most follow-ups that an answer may get.
create table follow_up_rule (
    study_id  uuid   primary key references study (id),
    most      int    not null,
    version   bigint not null,
    constraint follow_up_rule_most_ck check (most between 0 and 20)
);
