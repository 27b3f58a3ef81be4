package org.mossbank.standin.provider;

import java.util.Locale;

/** What may be wrong with what the provider says; one at a time, asked for at {@code POST /fault?named=}. */
enum ProviderFault {
    NONE,
    /** The token answers another request than the one that was made. */
    WRONG_NONCE,
    /** The token is over. */
    EXPIRED,
    /** The token is signed with a key that the provider does not publish. */
    STRANGE_KEY,
    /** The provider has taken another key since, and publishes it. */
    ROTATED_KEYS,
    /** The token says that another provider made it. */
    OTHER_ISSUER,
    /** The token is for somebody else. */
    OTHER_AUDIENCE,
    /** Nothing of the provider answers. */
    UNREACHABLE;

    static ProviderFault named(String name) {
        return valueOf(name.toUpperCase(Locale.ROOT).replace('-', '_'));
    }
}
