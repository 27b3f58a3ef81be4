package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import org.mossbank.testkit.QuickStart;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** The server is killed while raters are sending grades, somebody talks about a split, a run is collecting answers and trials run. */
public class CrashTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String SECRET = "heron under the jetty";

    private final GradesUnderWay grades = new GradesUnderWay();
    private final WordsUnderWay words = new WordsUnderWay();
    private final TrialsUnderWay trials = new TrialsUnderWay(ROOT);
    private RunUnderWay run;
    private ServerProcess killed;
    private ServerProcess again;

    private static ServerProcess start(TestDatabase database) {
        Map<String, String> settings = new HashMap<>(ServerProcess.AMONG_MANY);
        settings.put("MOSSBANK_ALLOWED_SOURCES", "127.0.0.1");
        settings.put("MOSSBANK_HOSTS_STANDIN", "127.0.0.1");
        settings.put("MOSSBANK_SECRETS_STANDIN", SECRET);
        return ServerProcess.startDemo(ROOT, database, settings);
    }

    @BeforeClass
    public void killInTheMiddleAndStartAgain() throws IOException, InterruptedException {
        TestDatabase database = QuickStart.of(ROOT).databaseWithDemo();
        run = new RunUnderWay(ROOT, SECRET);
        ServerProcess server = start(database);
        grades.begin(server.address());
        grades.awaitEnough();
        words.begin(server.address());
        words.awaitEnough();
        trials.beginAndAwaitTheirMiddle(server.address());
        run.beginAndAwaitItsMiddle(server.address());
        server.kill();
        killed = server;
        trials.nothingRunsOn();
        grades.awaitEnd();
        again = start(database);
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        if (again != null) {
            again.close();
        }
        if (run != null) {
            run.close();
        }
    }

    @Test
    public void everyAcknowledgedGradeSurvivesAKill() {
        grades.areThere(again.address());
    }

    @Test
    public void everythingSaidInATalkSurvivesAKill() throws InterruptedException {
        words.areThere(again.address());
    }

    /** Runs were claimed, asked, cut by the kill and taken up again; none of it writes what requests were sent with. */
    @Test(dependsOnMethods = "nothingThatHadComeIsLostAndNothingIsAskedTwice")
    public void noSecretIsInTheLog() {
        assertThat(killed.log()).contains("Started MossbankApplication").doesNotContain(SECRET);
        assertThat(again.log()).contains("Started MossbankApplication").doesNotContain(SECRET);
    }

    @Test
    public void trialsGoOnAndNoneCountsTwice() {
        trials.goOnAndCountOnce(again.address());
    }

    @Test
    public void nothingThatHadComeIsLostAndNothingIsAskedTwice() throws InterruptedException {
        run.isFinishedAsIfNothingHadBeen(again.address());
    }
}
