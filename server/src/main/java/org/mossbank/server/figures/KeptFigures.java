package org.mossbank.server.figures;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.CannotCreateTransactionException;
import tools.jackson.core.JacksonException;

/**
 * Figures by the revision of the grades they were worked out from: in memory, and in the database, so that a server that
 * starts anew need not work them out again. Never worked out twice at the same time.
 */
@Service
public class KeptFigures {
    private static final Logger LOG = LoggerFactory.getLogger(KeptFigures.class);
    /** Of a sort; those of a large study take about a megabyte. */
    private static final int MOST_IN_MEMORY = 100;

    private record Key(StudyId study, String sort, long revision) {}

    private final KeptFigureRepository kept;
    /** Each sort has its own: figures are worked out from others, and a map must not be changed while it is. */
    private final Map<String, Cache<Key, Object>> inMemory = new ConcurrentHashMap<>();

    KeptFigures(KeptFigureRepository kept) {
        this.kept = kept;
    }

    /** So that the first who opens figures need not wait for it. */
    @SystemOnly
    @EventListener(ApplicationReadyEvent.class)
    public void knowOwnCode() {
        Thread reading = new Thread(OwnCode::digest, "own-code");
        reading.setDaemon(true);
        reading.setPriority(Thread.MIN_PRIORITY);
        reading.start();
    }

    /**
     * @param revision of the round, which counts up with everything that figures hang on
     * @param work     works them out, holding no connection to the database while it computes
     */
    @SystemOnly
    public <T> T of(FiguresOf<T> sort, StudyId study, long revision, Supplier<T> work) {
        Object found = inMemory(sort)
                .get(
                        new Key(study, sort.sort(), revision),
                        k -> fromDatabase(sort, k).orElseGet(() -> keep(sort, k, work.get())));
        return sort.type().cast(found);
    }

    private Cache<Key, Object> inMemory(FiguresOf<?> sort) {
        return inMemory.computeIfAbsent(
                sort.sort(),
                s -> Caffeine.newBuilder().maximumSize(MOST_IN_MEMORY).build());
    }

    private <T> Optional<T> fromDatabase(FiguresOf<T> sort, Key key) {
        return kept.findById(new KeptFigure.Key(key.study, key.sort))
                .filter(f -> f.holds(key.revision, OwnCode.digest()))
                .flatMap(f -> {
                    try {
                        return Optional.of(sort.read(f.figures()));
                    } catch (JacksonException e) {
                        LOG.warn("kept {} of {} cannot be read; they are worked out anew", key.sort, key.study);
                        return Optional.empty();
                    }
                });
    }

    /** Figures are shown even where they cannot be kept. */
    private <T> T keep(FiguresOf<T> sort, Key key, T figures) {
        try {
            kept.keep(key.study.value(), key.sort, key.revision, OwnCode.digest(), sort.write(figures));
        } catch (DataAccessException | CannotCreateTransactionException e) {
            LOG.warn(
                    "{} of {} were not kept: {}",
                    key.sort,
                    key.study,
                    e.getClass().getSimpleName());
        }
        return figures;
    }
}
