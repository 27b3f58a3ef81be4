package org.mossbank.server.account;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The sessions of a person; ended in the transaction of whoever asks, so that a password and its sessions change together. */
@Component
class Sessions {
    private final JdbcClient database;

    Sessions(JdbcClient database) {
        this.database = database;
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

    int countOthers(String signInName, String here) {
        return database.sql("select count(*) from spring_session where principal_name = ? and session_id <> ?")
                .params(signInName, here)
                .query(Integer.class)
                .single();
    }
}
