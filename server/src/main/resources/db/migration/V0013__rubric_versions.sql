create table rubric_version (
    id            uuid        primary key,
    study_id      uuid        not null references study (id),
    number        int         not null,
    -- what changed, in the lead's words
    note          text        not null default '',
    -- absent while it is a draft
    published_at  timestamptz,
    -- the one that the round is graded by; it never changes
    in_use        boolean     not null default false,
    version       bigint      not null default 0,
    constraint rubric_version_number_uq unique (study_id, number),
    constraint rubric_version_number_ck check (number >= 1),
    constraint rubric_version_in_use_ck check (not in_use or published_at is not null)
);
create unique index rubric_version_draft_uq on rubric_version (study_id) where published_at is null;
create unique index rubric_version_in_use_uq on rubric_version (study_id) where in_use;

insert into rubric_version (id, study_id, number, published_at, in_use)
    select gen_random_uuid(), s.id, 1, s.created_at, exists (select from round r where r.study_id = s.id) from study s;

alter table criterion add column rubric_version_id uuid references rubric_version (id);
update criterion c set rubric_version_id = v.id from rubric_version v where v.study_id = c.study_id;
alter table criterion
    alter column rubric_version_id set not null,
    drop constraint criterion_key_uq,
    drop column study_id,
    add column floor   double precision,
    add column traits  text[] not null default '{}',
    add constraint criterion_key_uq unique (rubric_version_id, key),
    add constraint criterion_floor_ck check (floor between -1 and 1);

-- Kinds that a criterion is for; without any, all.
create table criterion_kind (
    criterion_id  uuid not null references criterion (id),
    kind_id       uuid not null references kind (id) on delete cascade,
    constraint criterion_kind_pk primary key (criterion_id, kind_id)
);
create index criterion_kind_kind_ix on criterion_kind (kind_id);

-- A kind that no prompt is of may be taken out again, and its anchors with it.
alter table anchor
    drop constraint anchor_kind_id_fkey,
    add constraint anchor_kind_fk foreign key (kind_id) references kind (id) on delete cascade;
