package org.mossbank.server.run;

/** How a cell of a run stands when it is written down: what is under way counts as waiting. */
public enum CellState {
    WAITING,
    /** There is an answer, whatever its outcome. */
    DONE,
    /** Nothing came and nothing was paid; it can be asked again. */
    TURNED_AWAY
}
