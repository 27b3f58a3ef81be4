create table candidate_setting (
    candidate_id  uuid not null references candidate (id),
    place         int  not null,
    name          text not null,
    value         text not null,
    constraint candidate_setting_pk primary key (candidate_id, place),
    constraint candidate_setting_name_uq unique (candidate_id, name)
);
-- What stood as one text becomes one setting.
insert into candidate_setting (candidate_id, place, name, value)
    select id, 0, 'settings', settings from candidate where settings <> '';

-- Facts that no grade covers.
create table consideration (
    candidate_id  uuid not null references candidate (id),
    place         int  not null,
    sign          text not null,
    text          text not null,
    constraint consideration_pk primary key (candidate_id, place),
    constraint consideration_sign_ck check (sign in ('FOR', 'AGAINST', 'RULES_OUT'))
);

alter table candidate
    drop constraint candidate_name_uq,
    drop column settings,
    add column context_window       bigint,
    -- per million tokens, or a plan a month, in units of the currency
    add column input_price          numeric(14, 6),
    add column output_price         numeric(14, 6),
    add column monthly_price        numeric(14, 6),
    add column currency             char(3),
    add column caps                 text   not null default '',
    add column as_of                date,
    -- a person's own answers, graded blind among the rest
    add column baseline             boolean not null default false,
    add column person_id            uuid references account (id),
    add column version_number       bigint not null default 0,
    add constraint candidate_prices_ck check (
        context_window > 0 and input_price >= 0 and output_price >= 0 and monthly_price >= 0),
    add constraint candidate_currency_ck check (
        (currency is not null) = (coalesce(input_price, output_price, monthly_price) is not null)),
    add constraint candidate_person_ck check (baseline or person_id is null);
create index candidate_person_ix on candidate (person_id);
