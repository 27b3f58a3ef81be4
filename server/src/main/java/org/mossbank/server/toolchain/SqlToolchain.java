package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.springframework.stereotype.Component;

/**
 * SQL by PostgreSQL: each run has a database server of its own inside the sandbox, which ends with it. The schema, in
 * {@code schema.sql}, is the owner's; the answer runs as a role that owns nothing else, is no superuser and reaches no file.
 */
@Component
class SqlToolchain implements Toolchain {
    @Override
    public String key() {
        return "sql";
    }

    @Override
    public String title() {
        return "SQL";
    }

    @Override
    public String versionCommand() {
        return "psql --version";
    }

    /**
     * The superuser is asked for a password that only this shell knows; the trial's role for none. Text of an answer goes to the server
     * alone: the client would take a line that begins with a backslash for a command of its own.
     */
    @Override
    public String prelude() {
        return """
                server=$(dirname "$(ls -d /usr/lib/postgresql/*/bin/initdb | sort -V | tail -n 1)")
                begin() {
                    head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \\n' >/tmp/word
                    "$server/initdb" -D /tmp/db -U owner --pwfile=/tmp/word -A scram-sha-256 -E UTF8 --locale=C.UTF-8 --no-sync --wal-segsize=1 >/tmp/begun 2>&1 &&
                    printf 'local trial trial trust\\nlocal all owner scram-sha-256\\n' >/tmp/db/pg_hba.conf &&
                    "$server/pg_ctl" -D /tmp/db -w -t 20 -l /tmp/begun -o "-c listen_addresses= -c unix_socket_directories=/tmp -c fsync=off -c shared_buffers=8MB -c max_connections=8 -c max_wal_size=8MB -c statement_timeout=20s -c lock_timeout=5s" start >/dev/null 2>&1 ||
                    { cat /tmp/begun >&2; return 1; }
                    PGPASSWORD=$(cat /tmp/word)
                    rm /tmp/word
                    as_owner postgres 'create role trial login' && as_owner postgres 'create database trial owner trial'
                }
                as_owner() { PGPASSWORD=$PGPASSWORD psql -h /tmp -U owner -d "$1" -X -q -v ON_ERROR_STOP=1 -c "$2"; }
                sql() { psql -h /tmp -U trial -d trial -X -q --csv -v ON_ERROR_STOP=1 -c ";
                $(cat "$1")"; }
                """;
    }

    @Override
    public String build() {
        return "";
    }

    @Override
    public String run() {
        return "begin && { [ ! -e schema.sql ] || sql schema.sql; } && sql answer.sql";
    }

    @Override
    public LooseCode loose() {
        return new LooseCode("answer.sql", "", "", false);
    }

    @Override
    public List<String> languages() {
        return List.of("sql", "postgresql", "pgsql", "psql");
    }
}
