package org.mossbank.server.sandbox;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

public class WholeProgramTest {
    private static final int TRIES = 200;
    private static final SandboxJob SLEEPING =
            new SandboxJob(WorkFiles.none(), "sleep 8", "", SandboxTools.none(), SandboxLimits.usual());

    private List<String> command;

    @BeforeClass
    public void layOut() throws IOException {
        Path home = Files.createTempDirectory("mossbank-program-test");
        Bubblewrap laid = Bubblewrap.in(home, "root".equals(System.getProperty("user.name")));
        command = laid.command(laid.written(SLEEPING), SLEEPING, List.of());
    }

    /** At whichever moment of its beginning it is ended, nobody is left who holds its output. */
    @Test(timeOut = 300_000)
    public void whatIsEndedWhileItBeginsEndsWhole() {
        List<Integer> leftAfter = IntStream.range(0, TRIES)
                .mapToObj(i -> i * 200)
                .filter(micros -> !endsWithin(micros))
                .toList();

        assertThat(leftAfter)
                .as("microseconds after which an end left something")
                .isEmpty();
    }

    private boolean endsWithin(int micros) {
        try {
            WholeProgram program = WholeProgram.begun(command);
            CompletableFuture<Integer> output = new CompletableFuture<>();
            // As its output is read: from the beginning. What is asked for after its end is not waited for.
            Thread reading = new Thread(() -> output.complete(firstByte(program)));
            reading.setDaemon(true);
            reading.start();
            TimeUnit.MICROSECONDS.sleep(micros);
            program.end();
            return output.completeOnTimeout(1, 5, TimeUnit.SECONDS).join() == -1;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** -1 once nobody can write any more. */
    private static int firstByte(WholeProgram program) {
        try {
            return program.first().getInputStream().read();
        } catch (IOException e) {
            return -1;
        }
    }
}
