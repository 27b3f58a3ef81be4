package org.mossbank.server.mail;

import java.util.Optional;

/** Writes one sort of letter when it goes out; modules that know what stands in it are its writers. */
public interface LetterWriter {
    MailSort sort();

    /** Empty where there is nothing to tell any more. */
    Optional<Letter> write(MailOrder order);
}
