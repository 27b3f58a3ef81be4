package org.mossbank.server.grading;

import java.util.UUID;

/** How many of something belong to a thing. */
record SheetCount(UUID id, long count) {}
