package org.mossbank.bench;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;

/** Two hundred raters grade one study at once. */
public final class TwoHundredRaters {
    private static final int RATERS = 200;

    private TwoHundredRaters() {}

    public static void main(String[] arguments) throws Exception {
        TestDatabase database = TestDatabase.create();
        try (ServerProcess server = ServerProcess.startDemo(
                Path.of(arguments[0]).toAbsolutePath().normalize(), database, Map.of("MOSSBANK_JIT", "4"))) {
            GradingLoad load = new GradingLoad(Duration.ofSeconds(40), Duration.ofMinutes(2));
            load.open(ManyRaters.bringIn(server, RATERS));
            load.run();
            load.report(RATERS);
            if (!load.isComplete(database)) {
                throw new IllegalStateException("a grade was refused, lost or doubled");
            }
        }
    }
}
