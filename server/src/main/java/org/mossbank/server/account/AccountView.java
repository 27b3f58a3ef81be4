package org.mossbank.server.account;

import java.util.UUID;

/**
 * A person as others see them.
 *
 * @param mayBringIn  whether they may bring in studies
 * @param hasPassword whether they have set a password yet
 */
public record AccountView(UUID id, String signInName, String displayName, boolean mayBringIn, boolean hasPassword) {}
