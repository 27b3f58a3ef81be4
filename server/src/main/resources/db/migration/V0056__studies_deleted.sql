-- A study is deleted in two steps: whoever belonged to it belongs to it no more, which can be undone; later all of it goes.
alter table study
    add column deleted_at timestamptz,
    add column deleted_by text,
    add constraint study_deleted_ck check ((deleted_at is null) = (deleted_by is null));
create index study_deleted_ix on study (deleted_at) where deleted_at is not null;

-- Who belonged to a study that was deleted, as it stood in membership.
create table deleted_membership
(
    study_id   uuid    not null,
    account_id uuid    not null,
    role       text    not null,
    reads      boolean not null,
    grades     boolean not null,
    accepted   boolean not null,
    constraint deleted_membership_pk primary key (study_id, account_id),
    constraint deleted_membership_study_fk foreign key (study_id) references study,
    constraint deleted_membership_account_fk foreign key (account_id) references account
);
create index deleted_membership_account_ix on deleted_membership (account_id);

-- Whether a study goes, in this very transaction, which has written that down.
create function goes_for_good(gone uuid) returns boolean
    language sql stable as
$$
select exists (select 1 from study_deletion where study_id = gone and transaction_id = txid_current())
$$;

-- What is only ever added to goes with its whole study, and no other way.
create or replace function grading_change_is_append_only() returns trigger
    language plpgsql as
$$
begin
    if tg_op = 'DELETE' and (select goes_for_good(s.study_id) from sheet_answer a join sheet s on s.id = a.sheet_id
            where a.id = old.sheet_answer_id) then
        return old;
    end if;
    raise exception 'grading_change is append-only';
end
$$;

create or replace function talk_is_append_only() returns trigger
    language plpgsql as
$$
declare
    said_in uuid;
begin
    if tg_op = 'DELETE' then
        if tg_table_name = 'calibration_word' then
            said_in := old.study_id;
        else
            select study_id into said_in from reconciliation where id = old.reconciliation_id;
        end if;
        if goes_for_good(said_in) then
            return old;
        end if;
    end if;
    raise exception 'what was said is only ever added to';
end
$$;

create or replace function signed_memos_stay() returns trigger
    language plpgsql as
$$
declare
    signed_in uuid;
begin
    if tg_op = 'DELETE' then
        if tg_table_name = 'memo' then
            signed_in := old.study_id;
        else
            select study_id into signed_in from memo where id = old.memo_id;
        end if;
        if goes_for_good(signed_in) then
            return old;
        end if;
    end if;
    raise exception 'a signed memo stays as it is';
end
$$;

-- All rows of a study that stands deleted, from the last that points at others to the study itself. What stays is one line of
-- study_deletion: id, time and person.
create function delete_study(gone uuid) returns void
    language plpgsql as
$$
declare
    deleter text;
begin
    select deleted_by into deleter from study where id = gone for update;
    if deleter is null then
        raise exception 'study % does not stand deleted', gone using errcode = 'restrict_violation';
    end if;
    perform forget_acts(gone, deleter);

    create temporary table going_sheet_answer on commit drop as
        select a.id from sheet_answer a join sheet s on s.id = a.sheet_id where s.study_id = gone;
    create temporary table going_split on commit drop as select id from reconciliation where study_id = gone;
    create temporary table going_memo on commit drop as select id from memo where study_id = gone;
    create temporary table going_answer on commit drop as select id from answer where study_id = gone;
    create temporary table going_prompt on commit drop as select id from prompt where study_id = gone;
    create temporary table going_candidate on commit drop as select id from candidate where study_id = gone;
    create temporary table going_criterion on commit drop as
        select c.id from criterion c join rubric_version v on v.id = c.rubric_version_id where v.study_id = gone;

    delete from memo_link where memo_id in (select id from going_memo);
    delete from memo_entry where memo_id in (select id from going_memo);
    delete from memo_dissent where memo_id in (select id from going_memo);
    delete from memo_frozen where memo_id in (select id from going_memo);
    delete from memo where study_id = gone;

    delete from talk_reading where reconciliation_id in (select id from going_split);
    delete from third_look where reconciliation_id in (select id from going_split);
    delete from stance where reconciliation_id in (select id from going_split);
    delete from split_word where reconciliation_id in (select id from going_split);
    delete from reconciliation where study_id = gone;

    delete from agreed_level where study_id = gone;
    delete from calibration_word where study_id = gone;
    delete from anchor_proposal where study_id = gone;
    delete from specimen_level where answer_id in (select id from going_answer);

    delete from own_input_end where input_id in (select id from own_input where study_id = gone);
    delete from own_input where study_id = gone;
    delete from trial_seen where study_id = gone;
    delete from page_picture where study_id = gone;
    delete from trial where study_id = gone;
    delete from repair where study_id = gone;
    delete from prompt_check where study_id = gone;

    delete from grading_change where sheet_answer_id in (select id from going_sheet_answer);
    delete from active_time where sheet_answer_id in (select id from going_sheet_answer);
    delete from coverage where sheet_answer_id in (select id from going_sheet_answer);
    delete from grade where sheet_answer_id in (select id from going_sheet_answer);
    delete from remark where sheet_answer_id in (select id from going_sheet_answer);
    delete from sheet_answer where id in (select id from going_sheet_answer);
    delete from sheet_event where sheet_id in (select id from sheet where study_id = gone);
    delete from sheet where study_id = gone;
    delete from reminder where study_id = gone;

    delete from look where study_id = gone;
    delete from kept_figure where study_id = gone;
    delete from archive_import where study_id = gone;
    delete from succession where study_id = gone;
    delete from claim where study_id = gone;
    delete from words_taken where study_id = gone;
    delete from stated_use where study_id = gone;

    delete from run_cell where run_id in (select id from run where study_id = gone);
    delete from run where study_id = gone;
    delete from cleared_secret where study_id = gone;
    delete from turn_said where study_id = gone;
    delete from follow_up where answer_id in (select id from going_answer);
    delete from follow_up_rule where study_id = gone;
    delete from mask where answer_id in (select id from going_answer);
    delete from masking where study_id = gone;
    delete from answer where study_id = gone;

    delete from source_header where candidate_id in (select id from going_candidate);
    delete from source where study_id = gone;
    delete from consideration where candidate_id in (select id from going_candidate);
    delete from candidate_setting where candidate_id in (select id from going_candidate);
    delete from candidate where study_id = gone;

    delete from read_back where prompt_id in (select id from going_prompt);
    delete from prompt_fault where prompt_id in (select id from going_prompt);
    delete from starting_file where prompt_id in (select id from going_prompt);
    delete from key_point where prompt_id in (select id from going_prompt);
    delete from prompt where study_id = gone;
    delete from calibration where study_id = gone;

    delete from anchor where criterion_id in (select id from going_criterion);
    delete from level where criterion_id in (select id from going_criterion);
    delete from criterion_kind where criterion_id in (select id from going_criterion);
    delete from criterion where id in (select id from going_criterion);
    delete from rubric_version where study_id = gone;
    delete from kind where study_id = gone;

    delete from round where study_id = gone;
    delete from expectation where study_id = gone;
    delete from brief_reopening where study_id = gone;
    delete from membership where study_id = gone;
    delete from deleted_membership where study_id = gone;
    -- letters that were ordered for it and never went out
    delete from scheduled_tasks where task_name = 'mail' and position(gone::text in convert_from(task_data, 'UTF8')) > 0;
    delete from audit_event where study_id = gone;
    delete from study where id = gone;

    drop table going_sheet_answer, going_split, going_memo, going_answer, going_prompt, going_candidate, going_criterion;
end
$$;
