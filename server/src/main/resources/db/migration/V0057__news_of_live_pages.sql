-- Servers on which somebody follows a run or trials hear when anything of them changes, on whichever server that was.
create function tell_live_pages() returns trigger
    language plpgsql as
$$
begin
    -- The same words of one transaction are told once.
    perform pg_notify('mossbank_live', '');
    return null;
end
$$;

create trigger run_told after insert or update or delete on run
    for each statement execute function tell_live_pages();
create trigger run_cell_told after insert or update or delete on run_cell
    for each statement execute function tell_live_pages();
create trigger trial_told after insert or update or delete on trial
    for each statement execute function tell_live_pages();
