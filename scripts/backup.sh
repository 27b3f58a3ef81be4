# shellcheck shell=bash
# Taken in by `mossbank`: copies of the database by PostgreSQL's own programs, and bringing them back.

BACKUP_FORMAT=1

# How many rows each table has, as JSON.
COUNTS="select coalesce(json_object_agg(t.name, t.rows order by t.name), '{}') from (select table_name as name,
    (xpath('/row/n/text()', query_to_xml(format('select count(*) as n from %I.%I', table_schema, table_name), false, true, '')))[1]::text::bigint as rows
    from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE') t"
SCHEMA_VERSION="select version from flyway_schema_history where success and version is not null order by installed_rank desc limit 1"

# Says in the environment where PostgreSQL's programs find the database: the one that is named, or that of this clone.
to_database() {
    need_postgres_client
    if [ -n "${MOSSBANK_DB_URL:-}" ]; then
        [[ $MOSSBANK_DB_URL =~ ^jdbc:postgresql://([^/:?]+)(:([0-9]+))?/([^/?]+)$ ]] ||
            fail "MOSSBANK_DB_URL must be jdbc:postgresql://host:port/database here"
        export PGHOST=${BASH_REMATCH[1]} PGPORT=${BASH_REMATCH[3]:-5432} PGDATABASE=${BASH_REMATCH[4]}
        export PGUSER=${MOSSBANK_DB_USER:-mossbank} PGPASSWORD=${MOSSBANK_DB_PASSWORD:-}
    else
        need_postgres
        PATH=$(pg_bin):$PATH
        local cluster=$HOME_DIR/cluster
        [ "$1" = restore ] || [ -s "$cluster/PG_VERSION" ] || fail "this clone has no database yet"
        if [ ! -s "$cluster/PG_VERSION" ] || ! cluster_runs "$cluster"; then
            trap 'stop_cluster "$HOME_DIR/cluster"' EXIT
        fi
        start_cluster "$cluster"
        if [ "$1" = restore ]; then make_database "${MOSSBANK_DATABASE:-mossbank}"; fi
        export PGHOST=127.0.0.1 PGPORT=$PG_PORT PGDATABASE=${MOSSBANK_DATABASE:-mossbank} PGUSER=mossbank PGPASSWORD=$PG_PASSWORD
    fi
    ask "select 1" >/dev/null || fail "the database does not answer"
}

ask() { psql -XqAt -v ON_ERROR_STOP=1 -c "$1"; }

# A member of a backup's manifest, which is JSON; PostgreSQL reads it.
of_manifest() { psql -XqAt -v ON_ERROR_STOP=1 -v manifest="$(cat "$1")" <<<"select :'manifest'::json ->> '$2'"; }

newest_migration() {
    if is_release; then sed -n 2p "$ROOT/RELEASE"; return; fi
    find "$ROOT/server/src/main/resources/db/migration" -name 'V*__*.sql' -printf '%f\n' | sed 's/^V0*//; s/__.*//' | sort -n | tail -n 1
}

version() { if is_release; then sed -n 1p "$ROOT/RELEASE"; else sed -n 's#^  <version>\(.*\)</version>#\1#p' "$ROOT/pom.xml"; fi; }

# Everything as it was at one moment, while raters grade: the counts of the manifest are those of the same moment.
backup() {
    [ $# -eq 1 ] || fail "name the file that the backup is written to"
    local file=$1 snapshot schema counts
    [ ! -e "$file" ] && [ ! -e "$file.json" ] || fail "$file or $file.json is there already"
    [ -d "$(dirname "$file")" ] || fail "there is no folder $(dirname "$file")"
    to_database backup
    # What is in it is for nobody else: digests of passwords, and who is behind a number.
    umask 077
    coproc MOMENT { psql -XqAt -v ON_ERROR_STOP=1 2>&1; }
    printf '%s;\n' "begin transaction isolation level repeatable read read only" "select pg_export_snapshot()" \
        "$SCHEMA_VERSION" "$COUNTS" >&"${MOMENT[1]}"
    read -r snapshot <&"${MOMENT[0]}" && read -r schema <&"${MOMENT[0]}" && read -r counts <&"${MOMENT[0]}" ||
        fail "the database is not one of Mossbank's"
    [[ $counts == '{'* ]] || fail "the database is not one of Mossbank's: $snapshot"
    if ! pg_dump -Fc --no-owner --no-privileges --snapshot="$snapshot" -f "$file.part"; then
        rm -f "$file.part"
        fail "the backup could not be written"
    fi
    printf '%s\n' 'rollback;' '\q' >&"${MOMENT[1]}"
    cat >"$file.json" <<MANIFEST
{
  "format": $BACKUP_FORMAT,
  "version": "$(version)",
  "schema": "$schema",
  "postgresql": "$(ask 'show server_version')",
  "takenAt": "$(date -u +%Y-%m-%dT%H:%M:%SZ)",
  "keepUntil": "$(date -u -d "+${MOSSBANK_BACKUP_DAYS:-35} days" +%Y-%m-%d)",
  "sha256": "$(sha256sum "$file.part" | cut -d' ' -f1)",
  "rows": $counts
}
MANIFEST
    mv "$file.part" "$file"
    say "$(du -h "$file" | cut -f1) in $file, and what is in it in $file.json; keep both until $(of_manifest "$file.json" keepUntil) and no longer."
}

# All or nothing: what was there before stays until the last row is in.
restore() {
    local file='' over=no
    while [ $# -gt 0 ]; do
        case $1 in --over) over=yes ;; *) file=$1 ;; esac
        shift
    done
    [ -n "$file" ] || fail "name the file of the backup"
    [ -r "$file" ] && [ -r "$file.json" ] || fail "a backup is two files, $file and $file.json; one of them cannot be read"
    to_database restore
    check_backup "$file"
    [ "$(ask "select count(*) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()")" = 0 ] ||
        fail "something is connected to the database; stop the server first"
    if [ "$(ask "select count(*) from information_schema.tables where table_schema = 'public'")" != 0 ] && [ "$over" = no ]; then
        fail "there is something in the database; --over replaces all of it"
    fi
    local gone
    gone=$(gone_for_good)
    {
        echo 'set client_min_messages = warning; begin; drop schema public cascade; create schema public;'
        pg_restore --no-owner --no-privileges -f - "$file" && echo 'commit;'
    } | psql -Xq -v ON_ERROR_STOP=1 >/dev/null || fail "nothing was changed: the backup could not be brought in"
    [ "$(ask "select '$(of_manifest "$file.json" rows)'::jsonb = ($COUNTS)::jsonb")" = t ] ||
        fail "the database does not hold what the manifest says"
    let_go_again "$gone"
    say "Brought in: $(ask "select sum(value::bigint) from json_each_text('$(of_manifest "$file.json" rows)')") rows, as they were at $(of_manifest "$file.json" takenAt)."
}

# Studies that went for good in the database that is replaced, with who deleted them: a backup does not bring them back.
gone_for_good() {
    [ "$(ask "select to_regclass('public.study_deletion') is not null")" = t ] || return 0
    ask "select study_id || ' ' || deleted_by from study_deletion order by deleted_at"
}

let_go_again() {
    local study by
    while read -r study by; do
        [ -n "$study" ] && [ "$(ask "select exists (select 1 from study where id = '$study')")" = t ] || continue
        if [ "$(ask "select count(*) from pg_proc where proname = 'delete_study'")" = 0 ]; then
            say "Study $study was deleted for good after this backup; this version cannot let it go again before a server has started once. Restore once more then."
            continue
        fi
        psql -XqAt -v ON_ERROR_STOP=1 -v study="$study" -v by="$by" >/dev/null <<<"begin;
            update study set deleted_at = coalesce(deleted_at, now()), deleted_by = :'by' where id = :'study';
            select delete_study(:'study');
            commit;" || fail "study $study, which was deleted for good, could not be let go again"
        say "Study $study was deleted for good after this backup: it is not brought back."
    done <<<"$1"
}

check_backup() {
    local file=$1 schema
    [ "$(of_manifest "$file.json" format)" = "$BACKUP_FORMAT" ] || fail "$file.json is not a manifest that this version reads"
    [ "$(of_manifest "$file.json" sha256)" = "$(sha256sum "$file" | cut -d' ' -f1)" ] ||
        fail "$file is not the file that $file.json tells of: it was changed, or not copied whole"
    schema=$(of_manifest "$file.json" schema)
    [ "$((10#$schema))" -le "$(newest_migration)" ] ||
        fail "the backup is of a newer version ($(of_manifest "$file.json" version), schema $schema); this one knows $(newest_migration)"
}
