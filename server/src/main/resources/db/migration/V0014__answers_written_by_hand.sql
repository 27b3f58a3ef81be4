alter table answer add column version bigint not null default 0;
