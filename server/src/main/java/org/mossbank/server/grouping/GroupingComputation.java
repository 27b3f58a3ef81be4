package org.mossbank.server.grouping;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.springframework.stereotype.Component;

/** Works out standings group by group. */
@Component
class GroupingComputation {
    private static final double LEVEL = 0.95;
    private static final int MOST_GROUPS = 40;

    private final Recommendations recommendations;
    private final Candidates candidates;
    private final Prompts prompts;
    private final HeavyWork heavy;

    GroupingComputation(Recommendations recommendations, Candidates candidates, Prompts prompts, HeavyWork heavy) {
        this.recommendations = recommendations;
        this.candidates = candidates;
        this.prompts = prompts;
        this.heavy = heavy;
    }

    GroupingReport of(StudyId study) {
        Recommendations.Graded graded = recommendations.graded(study);
        List<PromptView> sound = prompts.sound(study);
        Map<String, CandidateId> ids =
                candidates.ofStudy(study).stream().collect(Collectors.toMap(CandidateView::key, CandidateView::id));
        return heavy.run(() -> of(graded, sound, ids));
    }

    static GroupingReport of(Recommendations.Graded graded, List<PromptView> prompts, Map<String, CandidateId> ids) {
        List<GroupingReport.Grouping> groupings = new ArrayList<>();
        for (GroupingReport.By by : GroupingReport.By.values()) {
            Map<String, List<String>> groups = new LinkedHashMap<>();
            prompts.forEach(p -> names(by, p)
                    .forEach(n ->
                            groups.computeIfAbsent(n, g -> new ArrayList<>()).add(p.key())));
            if (groups.size() > 1) {
                groupings.add(new GroupingReport.Grouping(
                        by,
                        groups.entrySet().stream()
                                .sorted(Comparator.comparingInt((Map.Entry<String, List<String>> e) ->
                                                -e.getValue().size())
                                        .thenComparing(Map.Entry::getKey))
                                .limit(MOST_GROUPS)
                                .map(e -> group(e.getKey(), e.getValue(), graded, ids))
                                .toList()));
            }
        }
        return new GroupingReport(groupings);
    }

    /** What a prompt is called in a grouping; nothing where it has none. */
    private static List<String> names(GroupingReport.By by, PromptView prompt) {
        return switch (by) {
            case KIND -> List.of(prompt.kind().name());
            case SIZE ->
                prompt.content().size() == null
                        ? List.of()
                        : List.of(words(prompt.content().size()));
            case AREA -> prompt.content().areas().stream().distinct().toList();
            case LANGUAGE ->
                prompt.content().language().isBlank()
                        ? List.of()
                        : List.of(prompt.content().language().strip());
            case WORDING -> prompt.wording() == null ? List.of() : List.of(words(prompt.wording()));
        };
    }

    private static String words(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static GroupingReport.PromptGroup group(
            String name, List<String> keys, Recommendations.Graded graded, Map<String, CandidateId> ids) {
        List<Standing> standings = graded.grid(keys)
                .map(g -> Standings.of(g, new Standings.Options(0, LEVEL), Resamples.generator(0))
                        .standings())
                .orElse(List.of());
        Function<Standing, CandidateId> id = s -> Objects.requireNonNull(ids.get(s.candidate()));
        return new GroupingReport.PromptGroup(
                name,
                keys.size(),
                standings.stream()
                        .sorted(Comparator.comparingDouble(
                                s -> -s.adjusted().value().orElse(Double.NEGATIVE_INFINITY)))
                        .map(s -> new GroupingReport.GroupStanding(
                                id.apply(s), Figure.of(s.adjusted(), s.interval()), s.cells()))
                        .toList());
    }
}
