package org.mossbank.server.recommendation;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.prompt.PromptContent;

/**
 * A window of what each candidate made of each prompt.
 *
 * @param sizes   that the table has prompts of
 * @param areas   the same
 * @param prompts how many there are of the kind that is looked at
 * @param from    the first that is shown, from 0
 * @param rows    of the window, in the order that was asked for
 * @param sums    by candidate, over all of those prompts; the score is the mean of the prompts' scores
 */
record PromptTableView(
        List<RecommendationReport.CandidateName> candidates,
        List<KindName> kinds,
        List<PromptContent.TaskSize> sizes,
        List<String> areas,
        int prompts,
        int from,
        List<PromptTable.PromptRow> rows,
        List<PromptTable.PromptCell> sums) {
    /** Rows that are shown at once. */
    static final int WINDOW = 100;

    /** A kind that the table has prompts of. */
    record KindName(KindId id, String name) {}

    /** What rows are put in order by. */
    enum By {
        /** As the study lists them, by kind. */
        LISTED,
        TITLE,
        /** Mean of the candidates. */
        MEAN,
        /** Points between the highest and the lowest candidate. */
        SPREAD,
        /** One candidate's score. */
        CANDIDATE
    }

    /**
     * @param among     which rows are looked at
     * @param by        what rows are put in order by
     * @param candidate whose score it is; with {@link By#CANDIDATE} alone
     * @param down      whether the highest come first; rows without the figure are last either way
     * @param from      the first row to show, from 0
     */
    record Asked(Among among, By by, @Nullable CandidateId candidate, boolean down, int from) {}

    /** Which rows are looked at; each absent for all. */
    record Among(
            @Nullable KindId kind,
            PromptContent.@Nullable TaskSize size,
            @Nullable String area) {
        static final Among ALL = new Among(null, null, null);

        boolean has(PromptTable.PromptRow row) {
            return (kind == null || row.kindId().equals(kind))
                    && (size == null || row.size() == size)
                    && (area == null || row.areas().contains(area));
        }
    }

    static PromptTableView of(PromptTable table, Asked asked) {
        List<PromptTable.PromptRow> of =
                table.rows().stream().filter(asked.among::has).toList();
        List<PromptTable.PromptRow> ordered =
                order(asked).map(o -> of.stream().sorted(o).toList()).orElse(of);
        int from = Math.min(asked.from, ordered.size());
        return new PromptTableView(
                table.candidates(),
                table.rows().stream()
                        .map(r -> new KindName(r.kindId(), r.kind()))
                        .distinct()
                        .toList(),
                table.rows().stream()
                        .map(PromptTable.PromptRow::size)
                        .filter(Objects::nonNull)
                        .distinct()
                        .sorted()
                        .toList(),
                table.rows().stream()
                        .flatMap(r -> r.areas().stream())
                        .distinct()
                        .sorted()
                        .toList(),
                ordered.size(),
                from,
                ordered.subList(from, Math.min(from + WINDOW, ordered.size())),
                table.candidates().stream()
                        .map(c -> PromptTableComputation.sum(
                                c.id(),
                                of.stream()
                                        .flatMap(r -> r.cells().stream())
                                        .filter(cell -> cell.candidateId().equals(c.id()))
                                        .toList()))
                        .toList());
    }

    private static Optional<Comparator<PromptTable.PromptRow>> order(Asked asked) {
        return switch (asked.by) {
            case LISTED -> Optional.empty();
            case TITLE -> {
                Comparator<PromptTable.PromptRow> byTitle = Comparator.comparing(PromptTable.PromptRow::title);
                yield Optional.of(asked.down ? byTitle.reversed() : byTitle);
            }
            case MEAN -> Optional.of(byFigure(asked.down, r -> orMissing(r.mean())));
            case SPREAD -> Optional.of(byFigure(asked.down, r -> orMissing(r.spread())));
            case CANDIDATE -> Optional.of(byFigure(asked.down, r -> score(r, asked.candidate)));
        };
    }

    private static double score(PromptTable.PromptRow row, @Nullable CandidateId candidate) {
        return row.cells().stream()
                .filter(c -> c.candidateId().equals(candidate))
                .map(PromptTable.PromptCell::score)
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(Double.NaN);
    }

    private static double orMissing(@Nullable Double figure) {
        return figure == null ? Double.NaN : figure;
    }

    private static Comparator<PromptTable.PromptRow> byFigure(
            boolean down, ToDoubleFunction<PromptTable.PromptRow> figure) {
        return Comparator.comparingDouble(r -> {
            double value = figure.applyAsDouble(r);
            return Double.isNaN(value) ? Double.POSITIVE_INFINITY : down ? -value : value;
        });
    }
}
