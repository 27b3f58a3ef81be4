package org.mossbank.server.masking;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.mossbank.core.masking.GiveAways;
import org.mossbank.core.masking.Terms;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.figures.FiguresOf;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Sha256;
import org.springframework.stereotype.Component;

/**
 * What was found in which version of an answer, so that no text is searched twice: in memory, and, which of a study's answers hold
 * nothing, over restarts.
 */
@Component
class SearchedTexts {
    /** Answers, and what was found in them. */
    private static final int MOST_KEPT = 500_000;

    private static final FiguresOf<Holding> HOLDING = new FiguresOf<>("masking", Holding.class);
    private static final GiveAways.Found NOTHING = new GiveAways.Found(List.of(), true);

    /** Those of a study's answers that hold anything. */
    record Holding(List<AnswerId> answers) {
        Holding {
            answers = List.copyOf(answers);
        }
    }

    /** Searching is a pure function of these, so that what was found can be kept by them. */
    private record Searched(AnswerId answer, long version, Terms terms) {}

    private final Cache<Searched, GiveAways.Found> found = Caffeine.newBuilder()
            .maximumWeight(MOST_KEPT)
            .weigher((Searched searched, GiveAways.Found all) -> 1 + all.all().size())
            .build();

    private final KeptFigures kept;

    SearchedTexts(KeptFigures kept) {
        this.kept = kept;
    }

    GiveAways.Found in(FactsOfAnswers.Whole answer, Terms terms, GiveAways finder) {
        return Objects.requireNonNull(
                found.get(new Searched(answer.id(), answer.version(), terms), s -> finder.in(answer.text())));
    }

    /** Most answers give nobody away, and a text that was searched need not even be read again. */
    boolean isKnownToHoldNothing(FactsOfAnswers.Head answer, Terms terms) {
        return NOTHING.equals(found.getIfPresent(key(answer, terms)));
    }

    private static Searched key(FactsOfAnswers.Head answer, Terms terms) {
        return new Searched(answer.id(), answer.version(), terms);
    }

    /**
     * Learns which of these hold nothing.
     *
     * @param search searches those of which nothing is known here; asked for if it is not known from before either
     */
    void know(StudyId study, List<FactsOfAnswers.Head> all, Terms terms, Runnable search) {
        if (all.stream().allMatch(a -> found.getIfPresent(key(a, terms)) != null)) {
            return;
        }
        Holding holding = kept.of(HOLDING, study, revision(all, terms), () -> {
            search.run();
            return new Holding(all.stream()
                    .filter(a -> !isKnownToHoldNothing(a, terms))
                    .map(FactsOfAnswers.Head::id)
                    .toList());
        });
        Set<AnswerId> ids = Set.copyOf(holding.answers);
        all.stream().filter(a -> !ids.contains(a.id())).forEach(a -> found.put(key(a, terms), NOTHING));
    }

    /** Stands for exactly these versions of exactly these answers, and what is looked for in them. */
    private static long revision(List<FactsOfAnswers.Head> all, Terms terms) {
        StringBuilder said = new StringBuilder(terms.toString());
        all.forEach(a -> said.append('\n').append(a.id().value()).append(' ').append(a.version()));
        return ByteBuffer.wrap(Sha256.of(said.toString())).getLong();
    }
}
