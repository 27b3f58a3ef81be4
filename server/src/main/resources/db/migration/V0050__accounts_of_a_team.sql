-- Who looks after accounts and settings, and who has left. A server of the release before writes neither.
alter table account
    add column administrator  boolean not null default false,
    add column deactivated_at timestamptz,
    -- of the person's own choice, so that pages look alike wherever they sign in; absent until they choose
    add column theme          text,
    -- an IANA name; absent where the browser's is taken
    add column time_zone      text,
    add constraint account_theme_ck check (theme in ('SYSTEM', 'LIGHT', 'DARK')),
    add constraint account_time_zone_ck check (length(time_zone) between 1 and 64);

-- Whoever was let in by the console looks after the installation.
update account set administrator = true where sign_in_name = 'lead' and may_bring_in;

-- Whoever has left has no session, also where they were signing in at that moment: whoever deactivates holds the row.
create function refuse_session_of_the_left() returns trigger
    language plpgsql as
$$
declare
    gone timestamptz;
begin
    select deactivated_at into gone from account where sign_in_name = new.principal_name for key share;
    if gone is not null then
        return null;
    end if;
    return new;
end
$$;

create trigger spring_session_of_the_left before insert on spring_session
    for each row when (new.principal_name is not null) execute function refuse_session_of_the_left();
create trigger spring_session_taken_by_the_left before update of principal_name on spring_session
    for each row when (new.principal_name is not null and new.principal_name is distinct from old.principal_name)
    execute function refuse_session_of_the_left();
