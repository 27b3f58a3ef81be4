package org.mossbank.server.mail;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.ids.AccountId;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Once a day at most, in the morning where they are, people read what waits for them; nothing comes where nothing waits. */
@Component
class DailyLetters implements LetterWriter {
    private static final int MORNING = 7;
    private static final int NOON = 12;
    private static final Duration BETWEEN = Duration.ofHours(20);
    private static final Duration LOOKS_EVERY = Duration.ofMinutes(15);
    /** Of one question; as many are asked as are needed. */
    private static final int MOST_AT_ONCE = 500;

    private final MailChoiceRepository choices;
    private final Mails mails;
    private final Accounts accounts;
    private final List<Waiting> waiting;
    private final MailTexts texts;
    private final Clock clock;

    DailyLetters(
            MailChoiceRepository choices,
            Mails mails,
            Accounts accounts,
            List<Waiting> waiting,
            MailTexts texts,
            Clock clock) {
        this.choices = choices;
        this.mails = mails;
        this.accounts = accounts;
        this.waiting = waiting;
        this.texts = texts;
        this.clock = clock;
    }

    /** The task that looks whose morning it is. */
    @Configuration(proxyBeanMethods = false)
    static class Mornings {
        @Bean
        RecurringTask<Void> digestTask(ObjectProvider<DailyLetters> letters) {
            return Tasks.recurring("digest", FixedDelay.of(LOOKS_EVERY))
                    .execute((order, context) -> letters.getObject().orderAll());
        }
    }

    /** Orders a letter for everybody whose morning it is, and who had none today. */
    @Transactional
    public void orderAll() {
        if (!mails.isOn()) {
            return;
        }
        Instant now = clock.instant();
        UUID after = new UUID(0, 0);
        List<MailChoice> page;
        do {
            page = choices.withoutDigestSince(now.minus(BETWEEN), after, MOST_AT_ONCE);
            order(page, now);
            after = page.isEmpty()
                    ? after
                    : page.get(page.size() - 1).accountId().value();
        } while (page.size() == MOST_AT_ONCE);
    }

    private void order(List<MailChoice> page, Instant now) {
        Map<AccountId, ZoneId> zones =
                accounts.zones(page.stream().map(MailChoice::accountId).toList());
        for (MailChoice choice : page) {
            int hour = now.atZone(Require.known(zones, choice.accountId())).getHour();
            if (hour >= MORNING && hour < NOON) {
                choice.digested(now);
                mails.order(
                        new MailOrder(choice.accountId(), MailSort.DIGEST, null, ""), "digest-" + choice.accountId());
            }
        }
    }

    @Override
    public MailSort sort() {
        return MailSort.DIGEST;
    }

    @Override
    public Optional<Letter> write(MailOrder order) {
        AccountView account = Require.known(accounts.byId(List.of(order.to())), order.to());
        List<String> lines =
                waiting.stream().flatMap(w -> w.waitsFor(order.to()).stream()).toList();
        if (!account.active() || lines.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(texts.letter("What waits for you in Mossbank", account.displayName(), """
                This waits for you:

                %s

                It comes once a day at most, and not on days when nothing waits. Under "Your account" you can do without it.""".formatted(
                        lines.stream().map(l -> "- " + l).collect(Collectors.joining("\n")))));
    }
}
