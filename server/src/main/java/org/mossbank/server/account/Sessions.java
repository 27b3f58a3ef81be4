package org.mossbank.server.account;

import java.time.Instant;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** The sessions of a person; ended in the transaction of whoever asks, so that a password and its sessions change together. */
@Component
class Sessions {
    /** Names of what a session keeps about where it was begun. */
    static final String ADDRESS = "mossbank.address";

    static final String DEVICE = "mossbank.device";

    /** As many as are shown; more can be ended all at once. */
    private static final int MOST_SHOWN = 50;

    private final JdbcClient database;
    private final FindByIndexNameSessionRepository<? extends Session> sessions;

    Sessions(JdbcClient database, FindByIndexNameSessionRepository<? extends Session> sessions) {
        this.database = database;
        this.sessions = sessions;
    }

    /**
     * A browser in which somebody is signed in.
     *
     * @param handle  names the session without opening it
     * @param device  browser and system, as it says itself
     * @param address where it signed in from; absent for one that began before this was kept
     * @param here    whether it is the one that asks
     */
    record OwnSession(
            String handle,
            @Nullable String device,
            @Nullable String address,
            Instant begunAt,
            Instant lastUsedAt,
            boolean here) {}

    /** Those of a person, the last used first. */
    List<OwnSession> of(String signInName, String here) {
        return sessions.findByPrincipalName(signInName).values().stream()
                .filter(s -> !s.isExpired())
                .map(s -> new OwnSession(
                        handle(s.getId()),
                        s.getAttribute(DEVICE),
                        s.getAttribute(ADDRESS),
                        s.getCreationTime(),
                        s.getLastAccessedTime(),
                        s.getId().equals(here)))
                .sorted(Comparator.comparing(OwnSession::here)
                        .thenComparing(OwnSession::lastUsedAt)
                        .reversed())
                .limit(MOST_SHOWN)
                .toList();
    }

    /** Signs somebody out in one browser; one that is not theirs is not touched. */
    void end(String signInName, String handle) {
        database
                .sql("select session_id from spring_session where principal_name = ?")
                .param(signInName)
                .query(String.class)
                .list()
                .stream()
                .filter(id -> handle(id).equals(handle))
                .forEach(id -> database.sql("delete from spring_session where session_id = ?")
                        .param(id)
                        .update());
    }

    /** The id opens a session; its digest only names it. */
    private static String handle(String sessionId) {
        return HexFormat.of().formatHex(Accounts.hash(sessionId)).substring(0, 32);
    }

    /** Signs somebody out everywhere. */
    int endAll(String signInName) {
        return endOthers(signInName, "");
    }

    /** Signs somebody out everywhere but here. */
    int endOthers(String signInName, String here) {
        return database.sql("delete from spring_session where principal_name = ? and session_id <> ?")
                .params(signInName, here)
                .update();
    }
}
