package org.mossbank.server.reconciliation;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** What is kept of a talk. Within the transaction of whoever asks. */
@Component
class SplitRecords {
    private final SplitWordRepository words;
    private final StanceRepository stances;
    private final ThirdLookRepository looks;
    private final TalkReadingRepository readings;
    private final Studies studies;

    SplitRecords(
            SplitWordRepository words,
            StanceRepository stances,
            ThirdLookRepository looks,
            TalkReadingRepository readings,
            Studies studies) {
        this.words = words;
        this.stances = stances;
        this.looks = looks;
        this.readings = readings;
        this.studies = studies;
    }

    void read(UUID split, AccountId reader, Instant now) {
        readings.read(split, reader.value(), now);
    }

    boolean isSaid(UUID word) {
        return words.existsById(word);
    }

    long countWords(UUID split) {
        return words.countByReconciliationId(split);
    }

    boolean isTaken(UUID stance) {
        return stances.existsById(stance);
    }

    /** The level at which a rater stands; absent until they say. */
    @Nullable
    Integer standsAt(UUID split, AccountId rater) {
        List<Integer> levels = stances.findByReconciliationIdOrderByTakenAt(split).stream()
                .map(Stance::stood)
                .filter(s -> s.rater().equals(rater))
                .map(Reconciliations.Stood::level)
                .toList();
        return levels.isEmpty() ? null : levels.get(levels.size() - 1);
    }

    ThirdLook lookOf(UUID split, AccountId rater) {
        return looks.findById(new ThirdLook.Key(split, rater)).orElseThrow(() -> Problem.notFound("This look"));
    }

    String studyTitle(StudyId study) {
        return studies.get(study).title();
    }
}
