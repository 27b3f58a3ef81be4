-- An archive that is sent again after a lost connection makes no second study.
create table archive_import (
    study_id uuid primary key references study on delete cascade,
    lead_id uuid not null references account,
    digest text not null,
    brought_at timestamptz not null
);

create index archive_import_digest on archive_import (lead_id, digest);
