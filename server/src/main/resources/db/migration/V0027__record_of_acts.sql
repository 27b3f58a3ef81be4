-- What people did that may change an outcome: added, and never changed or taken away but with the whole study.
create table act
(
    id              uuid        not null,
    number          bigint generated always as identity,
    study_id        uuid        not null,
    sort            text        not null,
    subject         text        not null,
    reason          text        not null,
    made_by         text        not null,
    made_at         timestamptz not null,
    names_known     boolean     not null,
    outcome_before  text,
    headline_before text,
    constraint act_pk primary key (id),
    constraint act_study_fk foreign key (study_id) references study,
    constraint act_before_ck check ((outcome_before is null) = (headline_before is null))
);
create index act_study_ix on act (study_id, number);

-- What came of an act; worked out after it.
create table act_outcome
(
    act_id        uuid        not null,
    outcome       text        not null,
    headline      text        not null,
    worked_out_at timestamptz not null,
    constraint act_outcome_pk primary key (act_id),
    constraint act_outcome_act_fk foreign key (act_id) references act
);

-- What is left of a study that was deleted.
create table study_deletion
(
    study_id       uuid        not null,
    deleted_at     timestamptz not null default now(),
    deleted_by     text        not null,
    transaction_id bigint      not null default txid_current(),
    constraint study_deletion_pk primary key (study_id)
);

create function refuse_to_change_record() returns trigger
    language plpgsql as
$$
begin
    raise exception 'the record of acts is only ever added to (%)', tg_table_name using errcode = 'restrict_violation';
end
$$;

-- An act goes only within the transaction that has written down that its whole study goes.
create function refuse_to_take_from_record() returns trigger
    language plpgsql as
$$
declare
    gone uuid;
begin
    if tg_table_name = 'act' then
        gone := old.study_id;
    else
        select study_id into gone from act where id = old.act_id;
    end if;
    if not exists (select 1 from study_deletion d where d.study_id = gone and d.transaction_id = txid_current()) then
        raise exception 'the record of acts is only ever added to (%)', tg_table_name using errcode = 'restrict_violation';
    end if;
    return old;
end
$$;

create trigger act_unchanged before update or truncate on act
    for each statement execute function refuse_to_change_record();
create trigger act_kept before delete on act
    for each row execute function refuse_to_take_from_record();
create trigger act_outcome_unchanged before update or truncate on act_outcome
    for each statement execute function refuse_to_change_record();
create trigger act_outcome_kept before delete on act_outcome
    for each row execute function refuse_to_take_from_record();
create trigger study_deletion_kept before update or delete or truncate on study_deletion
    for each statement execute function refuse_to_change_record();

-- The one way by which acts go: with their study, of which id, time and person stay.
create function forget_acts(forgotten uuid, forgotten_by text) returns void
    language plpgsql as
$$
begin
    insert into study_deletion (study_id, deleted_by) values (forgotten, forgotten_by);
    delete from act_outcome o using act a where a.id = o.act_id and a.study_id = forgotten;
    delete from act where study_id = forgotten;
end
$$;
