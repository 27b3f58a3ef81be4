package org.mossbank.server.study.deletion;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import java.sql.Timestamp;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Lets studies go whose time to be brought back is over: all of their rows but a line of id, time and person. */
@Service
class GoneForGood {
    private static final Duration LOOKS_EVERY = Duration.ofHours(1);

    private final JdbcClient database;
    private final TransactionTemplate transactions;
    private final Audit audit;
    private final Clock clock;

    GoneForGood(JdbcClient database, TransactionTemplate transactions, Audit audit, Clock clock) {
        this.database = database;
        this.transactions = transactions;
        this.audit = audit;
        this.clock = clock;
    }

    /** The task that looks whose time is over. */
    @Configuration(proxyBeanMethods = false)
    static class Hours {
        @Bean
        RecurringTask<Void> goneForGoodTask(ObjectProvider<GoneForGood> gone) {
            return Tasks.recurring("deleted-studies", FixedDelay.of(LOOKS_EVERY))
                    .execute((order, context) -> gone.getObject().letGo());
        }
    }

    /** Those whose thirty days are over. */
    @SystemOnly
    public void letGo() {
        letGo(clock.instant().minus(DeletionService.UNDONE_WITHIN));
    }

    /** Those that were deleted before a moment, each in a transaction of its own: one that is brought back meanwhile stays. */
    @SystemOnly
    public void letGo(Instant before) {
        List<UUID> due = database.sql("select id from study where deleted_at < ? order by deleted_at")
                .param(Timestamp.from(before))
                .query(UUID.class)
                .list();
        for (UUID study : due) {
            transactions.executeWithoutResult(status -> letGo(study, before));
        }
    }

    private void letGo(UUID study, Instant before) {
        // A large study takes longer than any request may.
        database.sql("set local statement_timeout = 0").update();
        database.sql("select deleted_by from study where id = ? and deleted_at < ? for update")
                .params(study, Timestamp.from(before))
                .query(String.class)
                .optional()
                .ifPresent(by -> {
                    database.sql("select delete_study(?)")
                            .param(study)
                            .query((row, number) -> 1)
                            .list();
                    audit.keepOf(by, AuditSort.STUDY_GONE, new StudyId(study), "");
                });
    }
}
