package org.mossbank.server.succession;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.files.Keys;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which study another follows, for other modules. */
@Service
public class Successions {
    private final SuccessionRepository successions;
    private final Recommendations recommendations;
    private final Candidates candidates;
    private final Prompts prompts;
    private final Grading grading;
    private final EntityManager entities;
    private final BeforeNames names;

    Successions(
            SuccessionRepository successions,
            Recommendations recommendations,
            Candidates candidates,
            Prompts prompts,
            Grading grading,
            EntityManager entities,
            BeforeNames names) {
        this.names = names;
        this.successions = successions;
        this.recommendations = recommendations;
        this.candidates = candidates;
        this.prompts = prompts;
        this.grading = grading;
        this.entities = entities;
    }

    /** The study before; empty for one that follows none. */
    @SystemOnly
    @Transactional(readOnly = true)
    public Optional<Before> before(StudyId study) {
        return successions.findById(study).map(s -> names.of(study, s.before(), null));
    }

    /**
     * The same, to be handed out.
     *
     * @param keys by which the file names raters of this study
     */
    @SystemOnly
    @Transactional(readOnly = true)
    public Optional<Before> handedOut(StudyId study, Keys keys) {
        return successions.findById(study).map(s -> names.of(study, s.before(), keys));
    }

    /** As an archive, or the beginning of the next study, brings it. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, Before before) {
        entities.persist(Succession.of(study, before));
    }

    /**
     * A study as the next one remembers it. Slow: figures may have to be worked out.
     *
     * @param title   of it
     * @param raters  names by names to sign in
     * @param carried keys of the answers that are graded again
     * @throws org.mossbank.server.shared.Problem 409 before grading has ended
     */
    @SystemOnly
    public Before remember(StudyId study, String title, Map<String, String> raters, Set<String> carried) {
        RecommendationReport report = recommendations.report(study);
        Instant ended =
                Objects.requireNonNull(grading.round(study).orElseThrow().closedAt());
        Map<CandidateId, Figure> stood = report.overall().stream()
                .collect(Collectors.toMap(
                        RecommendationReport.StandingView::candidateId, RecommendationReport.StandingView::adjusted));
        List<Before.Part> parts = new ArrayList<>();
        prompts.sound(study).forEach(p -> parts.add(new Before.Part(Before.Sort.PROMPT, p.key(), p.title(), null)));
        report.rule()
                .weights()
                .forEach(w -> parts.add(new Before.Part(Before.Sort.CRITERION, w.key(), w.name(), w.weight())));
        raters.forEach((key, name) -> parts.add(new Before.Part(Before.Sort.RATER, key, name, null)));
        return new Before(
                title,
                ended,
                candidates.ofStudy(study).stream()
                        .map(c -> stood(c, stood.get(c.id())))
                        .toList(),
                parts,
                recommendations.meanLevels(study).stream()
                        .filter(m -> carried.contains(m.answer()))
                        .map(m -> new Before.Given(m.answer(), m.criterion(), m.level(), m.highestLevel(), m.raters()))
                        .toList());
    }

    private static Before.Stood stood(CandidateView candidate, @Nullable Figure figure) {
        return new Before.Stood(
                candidate.key(),
                candidate.name(),
                candidate.content().version(),
                candidate.settingsLine(),
                figure == null ? null : figure.value(),
                figure == null ? null : figure.low(),
                figure == null ? null : figure.high());
    }

    static <T> Map<String, T> byKey(List<T> all, Function<T, String> key) {
        return all.stream().collect(Collectors.toMap(key, Function.identity()));
    }
}
