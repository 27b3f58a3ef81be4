package org.mossbank.server.files;

/**
 * A row as it was read, and where.
 *
 * @param at  its file, line and cells, for faults
 * @param row what it says
 */
public record Line<R extends Record>(TableRow at, R row) {}
