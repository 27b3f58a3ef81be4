package buoys.link;

interface Modem {
    /** Whether the buoy confirmed. A command that was carried out without a confirmation may be sent again: it has an id. */
    boolean transmit(Command command);
}
