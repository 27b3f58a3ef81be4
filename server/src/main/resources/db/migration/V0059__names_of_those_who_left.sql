-- What a study calls people who have left: by their names, or by a number of its own.
alter table study
    add column leavers_shown text not null default 'BY_NAME',
    add constraint study_leavers_shown_ck check (leavers_shown in ('BY_NAME', 'BY_NUMBER'));

-- Which of those who left a person is in a study; stays theirs if they come back and leave again.
alter table membership
    add column left_number integer,
    add constraint membership_left_number_uq unique (study_id, left_number),
    add constraint membership_left_number_ck check (left_number > 0);
alter table deleted_membership add column left_number integer;

-- In the order in which they left.
update membership m set left_number = n.number
from (select study_id, account_id, row_number() over (partition by study_id order by a.deactivated_at, a.id) as number
      from membership join account a on a.id = account_id where a.deactivated_at is not null) n
where m.study_id = n.study_id and m.account_id = n.account_id;

-- By the database, so that nobody is without a number whichever release let them go. Whoever lets people go holds the
-- administrators' rows: one comes after the other.
create function number_who_left() returns trigger
    language plpgsql as
$$
begin
    update membership m set left_number =
        1 + (select coalesce(max(o.left_number), 0) from membership o where o.study_id = m.study_id)
    where m.account_id = new.id and m.left_number is null;
    return null;
end
$$;
create trigger account_number_who_left after update of deactivated_at on account
    for each row when (old.deactivated_at is null and new.deactivated_at is not null) execute function number_who_left();

-- Also where somebody who had left is brought in: with a study from elsewhere, or one whose deletion is undone.
create function number_who_had_left() returns trigger
    language plpgsql as
$$
begin
    if new.left_number is null and exists (select 1 from account where id = new.account_id and deactivated_at is not null) then
        new.left_number := 1 + (select coalesce(max(left_number), 0) from membership where study_id = new.study_id);
    end if;
    return new;
end
$$;
create trigger membership_number_who_had_left before insert on membership
    for each row execute function number_who_had_left();
