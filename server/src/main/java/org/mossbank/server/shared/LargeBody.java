package org.mossbank.server.shared;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** That an address takes a larger body than the usual 64 kB, and how large a one. */
@Target({ElementType.METHOD, ElementType.TYPE})
@Retention(RetentionPolicy.RUNTIME)
public @interface LargeBody {
    /** An answer with its follow-ups, or a prompt with its starting code: millions of characters, each up to six bytes. */
    long TEXTS = 24L << 20;

    /** Some ten thousand decisions at once. */
    long DECISIONS = 4L << 20;

    /** Lists and forms of some hundred fields. */
    long FORM = 1L << 20;

    /** In bytes. */
    long value();
}
