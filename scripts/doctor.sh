# shellcheck shell=bash
# Taken in by `mossbank`: looks at what an installation needs, and says of each thing what can be done about it.

DOCTOR_TROUBLES=0

well() { printf '  well     %s\n' "$1"; }
# without WHAT WHAT-TO-DO: something is off, and the rest works.
without() { printf '  without  %s\n           %s\n' "$1" "$2"; }
# wrong WHAT WHAT-TO-DO: it must not stay so.
wrong() {
    printf '  WRONG    %s\n           %s\n' "$1" "$2"
    DOCTOR_TROUBLES=$((DOCTOR_TROUBLES + 1))
}

is_loopback() { [[ $1 =~ ^(127\.[0-9.]+|::1|localhost)$ ]]; }

doctor() {
    say "Programs"
    doctor_programs
    say "Trials"
    doctor_trials
    say "Database"
    doctor_database
    say "Server"
    doctor_server
    say "Settings"
    doctor_settings
    if [ "$DOCTOR_TROUBLES" -gt 0 ]; then fail "$DOCTOR_TROUBLES of this must not stay so"; fi
    say "Nothing is wrong."
}

doctor_programs() {
    local version
    version=$(java -version 2>&1 | sed -n 's/.* version "\([0-9]*\).*/\1/p' | head -n 1)
    if [ "${version:-0}" -ge 17 ]; then well "Java $version"; else wrong "no Java 17 or newer" "apt-get install openjdk-17-jre-headless"; fi
    if [ -n "$(pg_bin)" ]; then well "PostgreSQL's programs, $(basename "$(dirname "$(pg_bin)")")"
    elif command -v psql >/dev/null && command -v pg_dump >/dev/null; then well "PostgreSQL's client"
    elif [ -n "${MOSSBANK_DB_URL:-}" ]; then without "PostgreSQL's programs" "backup, restore and link need them: apt-get install postgresql-client"
    else wrong "no PostgreSQL" "apt-get install postgresql, or name a database of your own in MOSSBANK_DB_URL"; fi
    if command -v git >/dev/null; then well "git"; else without "git" "leads read no starting code from repositories: apt-get install git"; fi
}

doctor_trials() {
    if ! command -v bwrap >/dev/null; then
        without "the sandbox" "no answer's code is tried: apt-get install bubblewrap"
        return
    fi
    if bwrap --unshare-all --die-with-parent --cap-drop ALL --ro-bind /usr /usr --symlink usr/bin /bin --symlink usr/lib /lib \
        --symlink usr/lib64 /lib64 --proc /proc --dev /dev true 2>/dev/null; then
        well "the sandbox shuts in"
    else
        wrong "the sandbox does not run" "namespaces of users may be off: sysctl kernel.unprivileged_userns_clone=1"
    fi
    if command -v javac >/dev/null; then well "a JDK, for answers in Java"; else without "a JDK" "answers in Java are not tried: apt-get install openjdk-17-jdk-headless"; fi
    if command -v chromedriver >/dev/null; then well "Chromium, for pages"; else without "Chromium" "no page is opened: apt-get install chromium chromium-driver"; fi
}

doctor_database() {
    if [ -z "${MOSSBANK_DB_URL:-}" ] && { [ ! -s "$HOME_DIR/cluster/PG_VERSION" ] || ! cluster_runs "$HOME_DIR/cluster"; }; then
        without "a database that runs" "./mossbank serve starts the private one; or name your own in MOSSBANK_DB_URL"
        return
    fi
    local told
    if ! told=$( (to_database doctor) 2>&1); then
        wrong "the database cannot be reached" "$told"
        return
    fi
    to_database doctor
    well "reached, PostgreSQL $(ask 'show server_version'), $(ask "select pg_size_pretty(pg_database_size(current_database()))") in $PGDATABASE"
    if [ "$(ask "select current_setting('server_version_num')::int >= 150000")" != t ]; then
        wrong "it is older than PostgreSQL 15" "take 15 or newer"
    fi
    if [ "$(ask 'show fsync')" = on ]; then well "what it acknowledged is on the disk"
    else wrong "fsync is off: grades can be lost when the power fails" "fsync = on in postgresql.conf"; fi
    local schema newest
    schema=$(ask "$SCHEMA_VERSION" 2>/dev/null) || schema=
    newest=$(newest_migration)
    if [ -z "$schema" ]; then without "any table in it yet" "the server makes them at its first start"
    elif [ "$((10#$schema))" -gt "$newest" ]; then wrong "it is of a newer release ($schema, this one knows $newest)" "start that release"
    elif [ "$((10#$schema))" -lt "$newest" ]; then without "this release's tables ($schema of $newest)" "the server makes them at its next start; back up before"
    else well "its tables are this release's ($schema)"; fi
    local folder full
    folder=$(ask 'show data_directory' 2>/dev/null) || folder=
    if [ -n "$folder" ] && full=$(df --output=pcent "$folder" 2>/dev/null | tail -n 1 | tr -dc 0-9) && [ -n "$full" ]; then
        if [ "$full" -ge 90 ]; then wrong "its disk is $full % full" "make room; when it is full, nothing can be saved"
        else well "its disk is $full % full"; fi
    fi
}

doctor_server() {
    local at
    at=$(running_address)
    if ! command -v curl >/dev/null; then
        without "a look at whether the server answers" "apt-get install curl"
        return
    fi
    if ! curl -fs -m 5 -o /dev/null "$at/actuator/health/liveness"; then
        if is_release; then without "a server that answers at $at" "systemctl start mossbank; its log is in journalctl -u mossbank"
        else without "a server that answers at $at" "./mossbank serve starts it; its log is $HOME_DIR/server.log"; fi
        return
    fi
    well "answers at $at"
    if curl -fs -m 5 -o /dev/null "$at/actuator/health/readiness"; then well "is ready"
    else wrong "is not ready" "its log says why: $HOME_DIR/server.log"; fi
    if curl -fs -m 5 -o /dev/null "$at/api/demo/sign-ins"; then
        if is_loopback "${MOSSBANK_BIND:-127.0.0.1}"; then well "demo sign-ins, on this machine alone"
        else wrong "everybody knows the demo's password, and the server listens to the world" "use ./mossbank serve"; fi
    fi
    if curl -fs -m 5 "$at/api/setup" | grep -q '"awaitsFirstLead":true'; then
        without "a first lead" "whoever starts the server is shown the link"
    fi
}

doctor_settings() {
    local bind=${MOSSBANK_BIND:-127.0.0.1}
    if is_loopback "$bind"; then well "listens on this machine alone"
    elif [ -n "${MOSSBANK_PROXIES:-}" ]; then well "listens on $bind, behind ${MOSSBANK_PROXIES}"
    else wrong "listens on $bind without TLS: passwords and answers can be read on the way" \
        "set MOSSBANK_BIND=127.0.0.1 and put a proxy with TLS before it, named in MOSSBANK_PROXIES"; fi
    if [ "${MOSSBANK_MAIL_SECURITY:-STARTTLS}" = NONE ] && [ -n "${MOSSBANK_MAIL_HOST:-}" ] && ! is_loopback "$MOSSBANK_MAIL_HOST"; then
        wrong "letters with links go to $MOSSBANK_MAIL_HOST without a secret way" "MOSSBANK_MAIL_SECURITY=STARTTLS"
    elif [ -n "${MOSSBANK_MAIL_HOST:-}" ]; then well "mail by $MOSSBANK_MAIL_HOST"
    else without "mail" "links are shown to whoever invites; docs/operating.md"; fi
    local name
    for name in $(compgen -e | grep -E '^MOSSBANK_PROVIDERS_.*_ISSUER$'); do
        if [[ ${!name} == https://* ]] || [[ ${!name} =~ ^http://127\. ]]; then
            if curl -fs -m 5 -o /dev/null "${!name%/}/.well-known/openid-configuration"; then well "provider ${!name}"
            else wrong "provider ${!name} does not answer" "nobody signs in by it meanwhile"; fi
        else wrong "provider ${!name} is asked without TLS" "an issuer begins with https://"; fi
    done
    local pid owner
    if pid=$(server_pid) && owner=$(stat -c %U "/proc/$pid" 2>/dev/null) && [ "$owner" != "$(id -un)" ] && ! is_root &&
        compgen -e | grep -qE '^MOSSBANK_(DB_PASSWORD|SECRETS_|MAIL_PASSWORD|METRICS_TOKEN|PROVIDERS_.*_SECRET)'; then
        wrong "secrets stand in your environment, and the server is $owner's" "keep them where $owner alone reads them"
    fi
    if [ "$(stat -c %a "$HOME_DIR" 2>/dev/null || echo 700)" != 700 ] && [ -n "$(find "$HOME_DIR" -maxdepth 1 -name '*.secret' -perm /077 2>/dev/null)" ]; then
        wrong "others can read the database's password in $HOME_DIR" "chmod 600 $HOME_DIR/*.secret"
    else well "nobody else reads the database's password"; fi
}
