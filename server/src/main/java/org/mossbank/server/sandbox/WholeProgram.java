package org.mossbank.server.sandbox;

import java.io.IOException;
import java.util.List;

/**
 * A program with all that it begins. What shuts it in takes a moment until its parts end with each other, and one that is ended
 * within it would leave a part that waits for ever, with the output in its hand.
 */
final class WholeProgram {
    private final Process first;

    private WholeProgram(Process first) {
        this.first = first;
    }

    /** @param command begins a group of processes of its own */
    static WholeProgram begun(List<String> command) throws IOException {
        ProcessBuilder builder = alone(command);
        builder.redirectError(ProcessBuilder.Redirect.DISCARD);
        Process process = builder.start();
        process.getOutputStream().close();
        return new WholeProgram(process);
    }

    private static ProcessBuilder alone(List<String> command) {
        ProcessBuilder builder = new ProcessBuilder(command);
        builder.environment().clear();
        builder.environment().put("PATH", "/usr/bin:/bin:/usr/sbin:/sbin");
        return builder;
    }

    Process first() {
        return first;
    }

    /** Ends all of it, however far it has come. Without effect on one that has ended. */
    void end() {
        if (!first.isAlive()) {
            return;
        }
        first.destroyForcibly();
        // What can leave the group ends with the first by itself.
        endGroup();
    }

    private void endGroup() {
        try {
            alone(List.of("sh", "-c", "kill -s KILL -- -" + first.pid()))
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start()
                    .waitFor();
        } catch (IOException e) {
            throw new IllegalStateException("a program could not be ended", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
