package org.mossbank.core.trial;

/** What the end of a build comes to. */
public final class BuildEnd {
    private static final String BUILD = "build";

    private BuildEnd() {}

    /** A compiler that runs out of its bounds has not compiled; why it has not is told. */
    public static CheckItem judge(RunEnd end) {
        return switch (end.end()) {
            case TIMED_OUT -> failed("the compiler's time was over");
            case OUT_OF_MEMORY -> failed("the compiler wanted more memory than it may hold");
            case WROTE_TOO_MUCH -> failed("the compiler wrote more than it may, and was ended");
            case BROKE_ITS_BOX -> failed("the build ended what it ran in");
            case BY_ITSELF ->
                end.status() == 0
                        ? CheckItem.passed(CheckItem.Sort.BUILD, BUILD)
                        : failed("the compiler ended with " + end.status());
        };
    }

    private static CheckItem failed(String why) {
        return CheckItem.ended(CheckItem.Sort.BUILD, BUILD, TrialOutcome.DID_NOT_COMPILE, why);
    }
}
