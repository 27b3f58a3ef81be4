package org.mossbank.server.audit;

import java.time.Clock;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/**
 * Writes down what is done, within the transaction that does it, if there is one: both or neither. No secret belongs into a
 * subject; what an act is done to may name a candidate, and is told to leads who see names alone.
 */
@Service
public class Audit {
    /** Characters of a subject; what is longer ends in dots. */
    static final int LONGEST_SUBJECT = 500;

    private final AuditEventRepository events;
    private final Clock clock;

    Audit(AuditEventRepository events, Clock clock) {
        this.events = events;
        this.clock = clock;
    }

    /** Of whoever asks; of no study. */
    @SystemOnly
    @Transactional
    public void keep(AuditSort sort, String subject) {
        write(sort, asking(), null, subject);
    }

    /** Of whoever asks, in a study. */
    @SystemOnly
    @Transactional
    public void keep(AuditSort sort, StudyId study, String subject) {
        write(sort, asking(), study, subject);
    }

    /**
     * Of somebody who is not signed in yet, or not in this request.
     *
     * @param who sign-in name; empty for the server itself
     */
    @SystemOnly
    @Transactional
    public void keepOf(String who, AuditSort sort, String subject) {
        write(sort, who, null, subject);
    }

    /** The same in a study. */
    @SystemOnly
    @Transactional
    public void keepOf(String who, AuditSort sort, StudyId study, String subject) {
        write(sort, who, study, subject);
    }

    private void write(AuditSort sort, String who, @Nullable StudyId study, String subject) {
        if (TransactionSynchronizationManager.isCurrentTransactionReadOnly()) {
            throw new IllegalStateException("a transaction that only reads would lose what was done");
        }
        String words = subject.strip();
        String kept = words.length() <= LONGEST_SUBJECT ? words : words.substring(0, LONGEST_SUBJECT - 2) + " …";
        events.save(AuditEvent.of(sort, who, study, kept).at(clock.instant(), address()));
    }

    private static String asking() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        return who == null || !who.isAuthenticated() || who.getPrincipal() instanceof String ? "" : who.getName();
    }

    private static @Nullable String address() {
        return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request
                ? request.getRequest().getRemoteAddr()
                : null;
    }
}
