-- What was done, by whom, when and from where: added, and never changed or taken away but with the whole study.
create table audit_event (
    number     bigint      generated always as identity,
    at         timestamptz not null,
    sort       text        not null,
    -- sign-in name; empty where the server did it, or somebody whom nobody knows
    who        text        not null,
    -- where the request came from; absent where there was none
    address    text,
    -- the study that it was done in stays named when the study is gone
    study_id   uuid,
    subject    text        not null,
    constraint audit_event_pk primary key (number)
);
create index audit_event_study_ix on audit_event (study_id, number) where study_id is not null;
create index audit_event_who_ix on audit_event (who, number);
create index audit_event_sort_ix on audit_event (sort, number);

create function refuse_to_change_audit() returns trigger
    language plpgsql as
$$
begin
    raise exception 'what was done is only ever added to' using errcode = 'restrict_violation';
end
$$;

-- A line goes only within the transaction that has written down that its whole study goes.
create function refuse_to_take_from_audit() returns trigger
    language plpgsql as
$$
begin
    if old.study_id is null
        or not exists (select 1 from study_deletion d where d.study_id = old.study_id and d.transaction_id = txid_current()) then
        raise exception 'what was done is only ever added to' using errcode = 'restrict_violation';
    end if;
    return old;
end
$$;

create trigger audit_event_unchanged before update or truncate on audit_event
    for each statement execute function refuse_to_change_audit();
create trigger audit_event_kept before delete on audit_event
    for each row execute function refuse_to_take_from_audit();
