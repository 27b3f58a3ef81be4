package org.mossbank.server.figures;

import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Progress;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.shared.database.Statistics;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/**
 * Works out a study's figures before somebody asks, so that the first who opens it need not wait: with what makes them new, while
 * whoever did that waits, or beside everything else. Where too many wait already, theirs are worked out when somebody asks.
 */
@Service
public class FiguresAhead {
    private static final Logger LOG = LoggerFactory.getLogger(FiguresAhead.class);
    private static final int MOST_WAITING = 20;
    /** The order of what is worked out: what is opened first comes first, and all else without an order after it. */
    public static final int ON_THE_FIRST_PAGE = 1;

    /** On the first page too, fetched by itself, as it takes longer. */
    public static final int BESIDE_IT = 2;

    public static final int ON_THE_SECOND = 3;

    /** Looked up when first needed: what they are made of is much. */
    private final ObjectProvider<WorkedOutAhead> all;

    private final Statistics statistics;
    private final boolean wanted;
    private final ThreadPoolExecutor soon = new ThreadPoolExecutor(
            1,
            1,
            0,
            TimeUnit.SECONDS,
            new ArrayBlockingQueue<>(MOST_WAITING),
            work -> new Thread(work, "figures-soon"),
            new ThreadPoolExecutor.DiscardPolicy());

    FiguresAhead(
            ObjectProvider<WorkedOutAhead> all,
            Statistics statistics,
            @Value("${mossbank.figures.ahead}") boolean wanted) {
        this.all = all;
        this.statistics = statistics;
        this.wanted = wanted;
    }

    /** Only that which somebody is about to ask. Returns at once. */
    @SystemOnly
    public void soon(StudyId study, WorkedOutAhead one) {
        if (wanted) {
            soon.execute(() -> workOut(study, one));
        }
    }

    /**
     * Of a study that was written whole; outside its transaction. The database is told to look at what came before it is asked,
     * and all that takes long to work out is there when this returns: whoever brings a study in waits already, and is told for what.
     *
     * @param rows how many answers on sheets came
     */
    @SystemOnly
    public void cameIn(StudyId study, int rows) {
        statistics.renewAfter(rows);
        now(study);
    }

    /** All of them, outside any transaction: they are there when this returns. */
    @SystemOnly
    public void now(StudyId study) {
        if (wanted) {
            List<WorkedOutAhead> every = all.orderedStream().toList();
            Progress.stage("working out figures", every.size());
            every.forEach(one -> {
                workOut(study, one);
                Progress.advance(1);
            });
        }
    }

    private static void workOut(StudyId study, WorkedOutAhead one) {
        try {
            one.workOut(study);
        } catch (RuntimeException e) {
            // They are worked out when somebody asks, who is told what is wrong.
            LOG.info("figures of {} were not worked out ahead", study, e);
        }
    }

    @SystemOnly
    @EventListener(ContextClosedEvent.class)
    void end() {
        soon.shutdownNow();
    }
}
