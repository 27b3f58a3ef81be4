package org.mossbank.core.trial;

/** How a test of a repository ended before an answer's change, and after it. */
public enum TestChange {
    STILL_PASSES,
    /** Failed before, passes now. */
    MENDED,
    /** Passed before; fails now, or is not run any more. */
    BROKEN,
    /** Failed before, and still does, though the check asks that it be mended. */
    STILL_FAILS,
    /** Failed before, and still does, which the check does not mind. */
    MAY_FAIL,
    /** Was not there before. */
    NEW
}
