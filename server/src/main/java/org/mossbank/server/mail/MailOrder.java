package org.mossbank.server.mail;

import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;

/**
 * That somebody is to get a letter. What stands in it is written when it goes out: no link waits in the database.
 *
 * @param to      whose
 * @param sort    which letter
 * @param studyId about which study, if about one
 * @param by      on whose behalf, as others read them; empty for nobody's
 */
public record MailOrder(
        AccountId to, MailSort sort, @Nullable StudyId studyId, String by) {}
