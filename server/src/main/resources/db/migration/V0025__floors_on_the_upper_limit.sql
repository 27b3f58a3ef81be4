-- Withheld only where agreement is too low beyond doubt.
alter table study
    drop constraint study_floor_on_ck,
    add constraint study_floor_on_ck check (floor_on in ('ESTIMATE', 'LOWER_LIMIT', 'UPPER_LIMIT'));
