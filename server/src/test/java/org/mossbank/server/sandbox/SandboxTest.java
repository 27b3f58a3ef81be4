package org.mossbank.server.sandbox;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.awaitility.Awaitility;
import org.testng.annotations.Test;

public class SandboxTest {
    private final Boxed boxed = new Boxed();

    @Test
    public void aProgramReadsItsInputAndFilesAndLeavesOthers() {
        SandboxResult result = boxed.run(
                Map.of("src/tide.txt", "high\n", "-rf", "low\n"),
                "cat src/tide.txt ./-rf - > out.txt; echo said; echo wrong >&2; exit 3",
                "moon\n");

        assertThat(result.ending()).isEqualTo(SandboxResult.Ending.BY_ITSELF);
        assertThat(result.status()).isEqualTo(3);
        assertThat(result.output()).isEqualTo(new SandboxResult.Output("said\n", false));
        assertThat(result.errors().text()).isEqualTo("wrong\n");
        assertThat(result.files().paths()).containsExactlyInAnyOrder("-rf", "out.txt", "src/tide.txt");
        assertThat(result.files().text("out.txt")).hasValue("high\nlow\nmoon\n");
    }

    @Test
    public void aNameInAnyScriptComesBackAsItWent() {
        assertThat(boxed.run(Map.of("föhr/潮.txt", "a"), "true", "").files().paths())
                .containsExactly("föhr/潮.txt");
    }

    @Test
    public void itsTimeAndMemoryAreTold() {
        SandboxResult result = boxed.run(Map.of(), "perl -e '$x = \"a\" x (64 << 20); sleep 1'", "");

        assertThat(result.millis()).isBetween(900L, 20_000L);
        assertThat(result.mostMemoryKb()).isBetween(60L << 10, 400L << 10);
    }

    @Test
    public void whatIsBeyondTheOutputsBoundIsCutAndSaid() {
        SandboxResult result = boxed.run(Map.of(), "head -c 300000 /dev/zero | tr '\\0' a", "");

        assertThat(result.ending()).isEqualTo(SandboxResult.Ending.WROTE_TOO_MUCH);
        assertThat(result.output().text()).hasSize(256 << 10);
        assertThat(result.output().cut()).isTrue();
    }

    @Test
    public void filesGoFromOneProgramToTheNext() {
        WorkFiles built = boxed.run(Map.of("a", "1"), "cp a b", "").files();
        SandboxJob next = new SandboxJob(
                built.with(Map.of("c", "2")), "cat a b c", "", SandboxTools.none(), SandboxLimits.usual());

        assertThat(boxed.sandbox().run(next, new Sandbox.Stop()).output().text())
                .isEqualTo("112");
    }

    /** Each may have so many processes; those of another are not held against it. */
    @Test
    public void whatOneRunsKeepsNoOtherFromBeginning() throws Exception {
        SandboxLimits many = new SandboxLimits(Duration.ofSeconds(30), 512, 256, 64 << 10, 16);
        SandboxJob crowded = new SandboxJob(
                WorkFiles.none(), "for i in $(seq 1 200); do sleep 25 & done; wait", "", SandboxTools.none(), many);
        Sandbox.Stop stop = new Sandbox.Stop();
        Sandbox beside = new Boxed().sandbox();
        CompletableFuture<SandboxResult> running = CompletableFuture.supplyAsync(() -> beside.run(crowded, stop));
        try {
            Awaitility.await().atMost(Duration.ofSeconds(30)).until(() -> sleeping() >= 200);
            SandboxLimits few = new SandboxLimits(Duration.ofSeconds(20), 256, 64, 64 << 10, 16);
            SandboxResult result = boxed.sandbox()
                    .run(
                            new SandboxJob(
                                    WorkFiles.none(),
                                    "sleep 0.1 & wait; echo two; for i in $(seq 1 100); do sleep 5 & done",
                                    "",
                                    SandboxTools.none(),
                                    few),
                            new Sandbox.Stop());
            assertThat(result.output().text()).isEqualTo("two\n");
            assertThat(result.errors().text()).as("its own are counted").contains("annot fork");
        } finally {
            stop.stop();
            running.join();
        }
    }

    private static long sleeping() {
        return ProcessHandle.allProcesses()
                .filter(p -> p.info()
                        .arguments()
                        .filter(a -> List.of(a).equals(List.of("25")))
                        .isPresent())
                .count();
    }

    @Test
    public void oneCanBeStopped() throws InterruptedException {
        Sandbox.Stop stop = new Sandbox.Stop();
        Thread stopper = new Thread(stop::stop);
        stopper.start();
        stopper.join();

        SandboxResult result = boxed.sandbox()
                .run(
                        new SandboxJob(WorkFiles.none(), "sleep 60", "", SandboxTools.none(), SandboxLimits.usual()),
                        stop);

        assertThat(result.ending()).isEqualTo(SandboxResult.Ending.STOPPED);
    }

    @Test
    public void limitsBeyondThoseOfTheServerAreRefused() {
        assertThatThrownBy(() -> SandboxLimits.usual().within(Duration.ofMinutes(3)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("time");
        assertThatThrownBy(() -> new SandboxLimits(Duration.ofSeconds(1), 1 << 20, 64, 1, 1))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("memoryMb");
    }

    @Test
    public void withoutItsProgramsNothingIsRunAndTheReasonIsTold() {
        Sandbox nowhere = new Sandbox(Path.of("/proc/nowhere"), 1);

        assertThat(nowhere.missing()).hasValueSatisfying(why -> assertThat(why).contains("/proc/nowhere"));
        assertThatThrownBy(() -> nowhere.run(
                        new SandboxJob(WorkFiles.none(), "true", "", SandboxTools.none(), SandboxLimits.usual()),
                        new Sandbox.Stop()))
                .isInstanceOf(IllegalStateException.class);
    }
}
