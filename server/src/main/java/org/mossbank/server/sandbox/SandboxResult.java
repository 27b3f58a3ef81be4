package org.mossbank.server.sandbox;

/**
 * What became of a program.
 *
 * @param status  that it ended with; 128 and the number of the signal where one ended it, so 137 where it was killed
 * @param millis  from its start to its end
 * @param mostMemoryKb that its processes were seen to hold together
 * @param files   of its work folder when it had ended; none where it was ended from outside
 */
public record SandboxResult(
        Ending ending, int status, long millis, long mostMemoryKb, Output output, Output errors, WorkFiles files) {
    /** How it ended. */
    public enum Ending {
        BY_ITSELF,
        TIMED_OUT,
        OUT_OF_MEMORY,
        /** It wrote more than it may: to an output, or to disk. */
        WROTE_TOO_MUCH,
        /** It ended what it ran in, or left what cannot be read. */
        BROKE_ITS_BOX,
        /** Somebody stopped it. */
        STOPPED
    }

    /**
     * What it wrote.
     *
     * @param cut whether it wrote more
     */
    public record Output(String text, boolean cut) {
        static final Output NONE = new Output("", false);
    }
}
