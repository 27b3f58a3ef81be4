package org.mossbank.server.calibration;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** A study's calibrations, for other modules. */
@Service
@Transactional(readOnly = true)
public class Calibrations {
    private final CalibrationRepository all;
    private final CalibrationWordRepository words;
    private final AgreedLevelRepository levels;
    private final EntityManager entities;

    Calibrations(
            CalibrationRepository all,
            CalibrationWordRepository words,
            AgreedLevelRepository levels,
            EntityManager entities) {
        this.all = all;
        this.words = words;
        this.levels = levels;
        this.entities = entities;
    }

    /** Where a level comes from. */
    public enum Source {
        /** Said beforehand by people who know. */
        REFERENCE,
        /** What the talk came to. */
        SETTLED
    }

    /** When it was graded again, and by which version of the rubric. */
    public record GradedAgain(Instant at, int rubricVersion) {}

    /**
     * How far a calibration went.
     *
     * @param rubricVersion that was graded by at first
     * @param talkOpenedAt  when all had sent in; absent until then
     * @param again         absent unless it was graded again
     */
    public record CalibrationCourse(
            Instant begunAt,
            String begunBy,
            int rubricVersion,
            @Nullable Instant talkOpenedAt,
            @Nullable GradedAgain again) {}

    /** Lines of an answer's text, from 1. */
    public record AtLines(int from, int to) {}

    /**
     * What somebody said.
     *
     * @param criterionId absent for the answer as a whole
     * @param lines       absent for no line in particular
     * @param namesKnown  whether they could see then which candidate wrote the answer
     */
    public record Word(
            AnswerId answerId,
            @Nullable CriterionId criterionId,
            @Nullable AtLines lines,
            AccountId author,
            String words,
            Instant at,
            boolean namesKnown) {}

    /** At which level an answer should stand. */
    public record Agreed(
            AnswerId answerId,
            CriterionId criterionId,
            Source source,
            int level,
            String reason,
            String by,
            Instant at) {}

    /** A calibration with all that was said; lists oldest first. */
    public record Kept(int number, CalibrationCourse course, List<Word> words, List<Agreed> levels) {}

    @SystemOnly
    public List<Kept> ofStudy(StudyId study) {
        Map<Integer, List<Word>> said = words.findByStudyIdOrderBySaidAt(study).stream()
                .collect(Collectors.groupingBy(
                        CalibrationWord::number, Collectors.mapping(CalibrationWord::word, Collectors.toList())));
        Map<Integer, List<Agreed>> agreed = levels.ofStudy(study).stream()
                .collect(Collectors.groupingBy(
                        AgreedLevel::number, Collectors.mapping(AgreedLevel::agreed, Collectors.toList())));
        return all.ofStudy(study).stream()
                .map(c -> new Kept(
                        c.key().number(),
                        c.course(),
                        said.getOrDefault(c.key().number(), List.of()),
                        agreed.getOrDefault(c.key().number(), List.of())))
                .toList();
    }

    /** As an archive brings them. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, List<Kept> kept) {
        for (Kept one : kept) {
            Calibration.Key key = new Calibration.Key(study, one.number());
            entities.persist(Calibration.of(key, one.course()));
            one.words().forEach(w -> entities.persist(CalibrationWord.of(UUID.randomUUID(), key, w)));
            one.levels().forEach(l -> entities.persist(AgreedLevel.of(key, l)));
        }
    }
}
