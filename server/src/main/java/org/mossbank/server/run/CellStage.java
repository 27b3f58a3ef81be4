package org.mossbank.server.run;

/** How far a cell is. */
enum CellStage {
    WAITING,
    ASKING,
    /** There is an answer, whatever its outcome. */
    DONE,
    /** Nothing came and nothing was paid; it can be asked again. */
    TURNED_AWAY
}
