package org.mossbank.e2e.journeys;

import java.nio.file.Path;
import java.util.Map;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.testng.annotations.Test;

/** Two servers on one database whose clocks differ. */
public class ClockSkewTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String SECRET = "heron under the jetty";

    /** The second server's clock is a minute ahead, as if nobody had set it. */
    @Test
    public void twoServersWhoseClocksDifferDoNotTakeEachOthersWork() throws Exception {
        TestDatabase database = TestDatabase.create();
        Map<String, String> settings = Map.of(
                "MOSSBANK_ALLOWED_SOURCES",
                "127.0.0.1",
                "MOSSBANK_HOSTS_STANDIN",
                "127.0.0.1",
                "MOSSBANK_SECRETS_STANDIN",
                SECRET);
        Map<String, String> ahead = Map.of(
                "MOSSBANK_ALLOWED_SOURCES",
                "127.0.0.1",
                "MOSSBANK_HOSTS_STANDIN",
                "127.0.0.1",
                "MOSSBANK_SECRETS_STANDIN",
                SECRET,
                "LD_PRELOAD",
                "/usr/lib/x86_64-linux-gnu/faketime/libfaketime.so.1",
                "FAKETIME",
                "+60s",
                "FAKETIME_DONT_FAKE_MONOTONIC",
                "1",
                // Else what waits for a while does not wait at all, and a server takes minutes to start.
                "FAKETIME_FORCE_MONOTONIC_FIX",
                "0");
        try (ServerProcess first = ServerProcess.startDemo(ROOT, database, settings);
                ServerProcess second = ServerProcess.startDemo(ROOT, database, ahead);
                RunUnderWay run = new RunUnderWay(ROOT, SECRET)) {
            run.beginAndAwaitItsMiddle(first.address());
            run.isFinishedUndisturbed(second.address());
        }
    }
}
