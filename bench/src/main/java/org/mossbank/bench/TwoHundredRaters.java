package org.mossbank.bench;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;

/**
 * Two hundred raters grade one study at once; or more or fewer, for longer, to see whether the server's memory levels off.
 *
 * <p>Arguments: the folder of the project; then for how many seconds, and how many raters.
 */
public final class TwoHundredRaters {
    private static final String RATERS = "200";
    private static final String SECONDS = "120";
    private static final Duration WARM_UP = Duration.ofSeconds(40);

    private TwoHundredRaters() {}

    public static void main(String[] arguments) throws Exception {
        Path root = Path.of(arguments[0]).toAbsolutePath().normalize();
        Duration span = Duration.ofSeconds(Long.parseLong(arguments.length > 1 ? arguments[1] : SECONDS));
        int raters = Integer.parseInt(arguments.length > 2 ? arguments[2] : RATERS);
        TestDatabase database = TestDatabase.create();
        try (ServerProcess server = ServerProcess.startDemo(root, database, Map.of("MOSSBANK_JIT", "4"))) {
            GradingLoad load = new GradingLoad(WARM_UP, span);
            load.open(ManyRaters.bringIn(server, raters));
            try (ResidentMemory memory = ResidentMemory.watch(server, span)) {
                load.run();
                memory.report();
            }
            load.report(raters);
            if (!load.isComplete(database)) {
                throw new IllegalStateException("a grade was refused, lost or doubled");
            }
        }
    }
}
