package org.mossbank.server.mail;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.task.ExecutionComplete;
import com.github.kagkarlsson.scheduler.task.ExecutionOperations;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Orders letters. Without a mail server nothing is ordered, and links are shown as they would be anyway. */
@Service
public class Mails {
    /** After this many tries a letter is given up: more than half a day has gone by. */
    private static final int MOST_TRIES = 14;

    private static final Duration FIRST_PAUSE = Duration.ofSeconds(3);

    private final MailSettings settings;
    private final MailChoiceRepository choices;
    private final SchedulerClient orders;
    private final Clock clock;

    Mails(MailSettings settings, MailChoiceRepository choices, SchedulerClient orders, Clock clock) {
        this.settings = settings;
        this.choices = choices;
        this.orders = orders;
        this.clock = clock;
    }

    /** Whether mail goes out at all. */
    @SystemOnly
    public boolean isOn() {
        return settings.isOn();
    }

    /**
     * Orders a letter, within the transaction of whoever asks. It is not sent to whoever does not want its sort, or whose
     * address may be somebody else's.
     *
     * @return whether one goes out
     */
    @SystemOnly
    @Transactional
    public boolean order(MailOrder order) {
        return order(order, UUID.randomUUID().toString());
    }

    /**
     * The same, once only.
     *
     * @param once what it is known by: while one of this name waits, no second one is ordered
     */
    @SystemOnly
    @Transactional
    public boolean order(MailOrder order, String once) {
        boolean goes = isOn()
                && choices.findById(order.to())
                        .filter(c -> c.takes(order.sort()))
                        .isPresent();
        return goes
                && orders.scheduleIfNotExists(
                        Sending.TASK.instance(once).data(order).build(), clock.instant());
    }

    /** Reaches somebody new at an address; whose it is is known once they used the link that was sent there. */
    @SystemOnly
    @Transactional
    public void reach(AccountId account, String address) {
        MailChoice choice = choices.findById(account).orElseGet(() -> choices.save(MailChoice.of(account, address)));
        choice.reachAt(address);
    }

    /** What is wrong with people's addresses, where something is. */
    @SystemOnly
    @Transactional(readOnly = true)
    public Map<AccountId, String> troubles(Collection<AccountId> accounts) {
        return choices.findAllById(accounts).stream()
                .filter(c -> c.trouble().isPresent())
                .collect(
                        Collectors.toMap(MailChoice::accountId, c -> c.trouble().orElseThrow()));
    }

    /** The task that sends. */
    @Configuration(proxyBeanMethods = false)
    static class Sending {
        private static final TaskDescriptor<MailOrder> TASK = TaskDescriptor.of("mail", MailOrder.class);

        @Bean
        OneTimeTask<MailOrder> mailTask(ObjectProvider<Delivery> delivery, Clock clock) {
            return Tasks.oneTime(TASK.getTaskName(), MailOrder.class)
                    .onFailure((failed, operations) -> later(failed, operations, delivery, clock))
                    .execute((order, context) -> delivery.getObject().deliver(order.getData()));
        }

        /** Pauses double; what cannot be sent in half a day is told instead. */
        private static void later(
                ExecutionComplete failed,
                ExecutionOperations<MailOrder> operations,
                ObjectProvider<Delivery> delivery,
                Clock clock) {
            int tries = failed.getExecution().consecutiveFailures + 1;
            if (tries >= MOST_TRIES) {
                MailOrder order = (MailOrder) failed.getExecution().taskInstance.getData();
                delivery.getObject().giveUp(order);
                operations.stop();
                return;
            }
            Instant next = clock.instant().plus(FIRST_PAUSE.multipliedBy(1L << Math.min(tries, MOST_TRIES)));
            operations.reschedule(failed, next);
        }
    }

    /** Writes and sends one letter. */
    @Service
    static class Delivery {
        private final MailChoiceRepository choices;
        private final Map<MailSort, LetterWriter> writers;
        private final Postman postman;

        Delivery(MailChoiceRepository choices, ObjectProvider<LetterWriter> writers, Postman postman) {
            this.choices = choices;
            this.writers = writers.orderedStream().collect(Collectors.toMap(LetterWriter::sort, w -> w));
            this.postman = postman;
        }

        /** No transaction is held while the mail server is asked. */
        @SystemOnly
        public void deliver(MailOrder order) {
            // Another address may have been named since the letter was ordered.
            Optional<MailChoice> choice = choices.findById(order.to()).filter(c -> c.takes(order.sort()));
            if (choice.isEmpty()) {
                return;
            }
            Optional<Letter> letter =
                    Optional.ofNullable(writers.get(order.sort())).flatMap(w -> w.write(order));
            if (letter.isEmpty()) {
                return;
            }
            try {
                postman.send(choice.get().address(), letter.get());
                choice.get().tookMail();
            } catch (Postman.NeverTaken e) {
                choice.get().tookNone(String.valueOf(e.getMessage()));
            }
            choices.save(choice.get());
        }

        @SystemOnly
        public void giveUp(MailOrder order) {
            choices.findById(order.to()).ifPresent(choice -> {
                choice.tookNone("the mail server did not answer for half a day");
                choices.save(choice);
            });
        }
    }
}
