package buoys.link;

import java.time.Duration;

final class CommandSender {
    private final Modem modem;
    private int attempts;

    CommandSender(Modem modem) {
        this.modem = modem;
    }

    /** Sends a command, again after a while if the modem does not answer, five times at most. */
    boolean send(Command command) throws InterruptedException {
        Duration wait = Duration.ofSeconds(2);
        while (attempts < 5) {
            attempts++;
            if (modem.transmit(command)) {
                return true;
            }
            Thread.sleep(wait.toMillis());
            wait.multipliedBy(2);
        }
        return false;
    }
}
