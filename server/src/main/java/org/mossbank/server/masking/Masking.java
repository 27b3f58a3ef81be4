package org.mossbank.server.masking;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.core.masking.GiveAways;
import org.mossbank.core.masking.Terms;
import org.mossbank.server.answer.AnswerText;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Masking, for other modules: the only way to what raters read. */
@Service
@Transactional(readOnly = true)
public class Masking {
    private final Answers answers;
    private final Candidates candidates;
    private final Stretches stretches;
    private final MaskingOfStudyRepository maskings;
    private final EntityManager entities;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    Masking(
            Answers answers,
            Candidates candidates,
            Stretches stretches,
            MaskingOfStudyRepository maskings,
            EntityManager entities,
            Snapshot snapshot,
            HeavyWork heavy) {
        this.answers = answers;
        this.candidates = candidates;
        this.stretches = stretches;
        this.maskings = maskings;
        this.entities = entities;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    /**
     * What was decided of a stretch.
     *
     * @param from     first character in the answer's text, from 0
     * @param to       after the last character
     * @param found    what stands there
     * @param accepted whether raters read the replacement
     */
    public record Decided(
            int from, int to, String found, GiveAway.Sort sort, String replacement, boolean accepted, Instant at) {}

    /** What raters get of answers, by id: masked, and nothing that hints at a candidate beside it. */
    @SystemOnly
    public Map<AnswerId, AnswerText> forRaters(Collection<AnswerId> ids) {
        Map<AnswerId, AnswerText> texts = answers.blind(ids);
        Map<AnswerId, List<Mask>> decided = stretches.decided(texts.keySet());
        return texts.values().stream()
                .map(t -> t.withText(masked(t.text(), decided.getOrDefault(t.id(), List.of()))))
                .collect(Collectors.toMap(AnswerText::id, t -> t));
    }

    private static String masked(String text, List<Mask> decided) {
        return org.mossbank.core.masking.Mask.applied(
                text,
                decided.stream()
                        .map(Mask::decided)
                        .filter(Decided::accepted)
                        .map(d -> new org.mossbank.core.masking.Mask(
                                new org.mossbank.core.masking.Span(d.from(), d.to()), d.replacement()))
                        .toList());
    }

    /** What stands for a candidate's name in what people say. */
    private static final String NAMELESS = "[masked]";

    /** What stands for a text that gives candidates away so often that it is not searched to its end. */
    private static final String ALL = "[masked, as it gives candidates away too often]";

    /**
     * Takes candidates' names, and the words that the study looks for, out of what people say to each other and what programs
     * print: for readers who must not know names.
     */
    @SystemOnly
    public UnaryOperator<String> said(StudyId study) {
        GiveAways finder = GiveAways.of(stretches.terms(study));
        return text -> nameless(finder, text);
    }

    private static String nameless(GiveAways finder, String text) {
        GiveAways.Found found = finder.in(text);
        List<org.mossbank.core.masking.Mask> masks = found.all().stream()
                .filter(g -> g.sort() == GiveAway.Sort.NAME || g.sort() == GiveAway.Sort.VENDOR)
                .map(g -> new org.mossbank.core.masking.Mask(g.span(), NAMELESS))
                .toList();
        // Of what was not searched to its end nothing is shown.
        return found.complete() ? org.mossbank.core.masking.Mask.applied(text, masks) : ALL;
    }

    /** Of stretches in one answer that are looked for in what its code prints. */
    private static final int MOST_LOOKED_FOR = 200;

    /**
     * What raters are shown of an answer's code, and of what that prints and draws.
     *
     * @param masked a text of it, as it may be shown
     * @param named  whether something is masked in the answer itself: what it draws, and cannot be read, may show it too
     */
    public record OfCode(UnaryOperator<String> masked, boolean named) {}

    /**
     * Takes what gives an answer's candidate away out of its code and what that prints: the words that the study looks for, and what
     * is masked in the answer's text. Line by line: as many come out as go in.
     */
    @SystemOnly
    public Map<AnswerId, OfCode> ofCode(StudyId study, Collection<AnswerId> ids) {
        UnaryOperator<String> said = said(study);
        Map<AnswerId, List<Mask>> decided = stretches.decided(ids);
        return ids.stream().distinct().collect(Collectors.toMap(id -> id, id -> {
            List<Mask> own = decided.getOrDefault(id, List.of());
            return new OfCode(
                    text -> said.apply(without(text, own)),
                    own.stream().anyMatch(m -> m.decided().accepted()));
        }));
    }

    private static String without(String text, List<Mask> decided) {
        String result = text;
        for (Decided mask : decided.stream()
                .map(Mask::decided)
                .filter(d -> d.accepted()
                        && !d.found().isBlank()
                        && d.found().lines().count() == 1)
                .limit(MOST_LOOKED_FOR)
                .toList()) {
            result = result.replace(mask.found(), mask.replacement().replace("\n", " "));
        }
        return result;
    }

    /** An answer that names a candidate in what raters read. */
    public record NamedIn(AnswerId answerId, String answerKey, String candidate) {}

    /** Answers to sound prompts that name a candidate, masked as they are. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public List<NamedIn> namesLeft(StudyId study) {
        Masked masked = snapshot.of(() -> masked(study));
        return heavy.run(() -> namesLeft(masked));
    }

    /** All names are looked for together first: few answers have one, and then it is asked which. */
    private static List<NamedIn> namesLeft(Masked masked) {
        GiveAways any = finder(masked.candidates);
        List<FactsOfAnswers.Whole> naming = masked.texts.entrySet().stream()
                .filter(a -> names(any, a.getValue()))
                .map(Map.Entry::getKey)
                .toList();
        return masked.candidates.stream()
                .flatMap(c -> {
                    GiveAways own = finder(List.of(c));
                    return naming.stream()
                            .filter(a -> names(own, Require.known(masked.texts, a)))
                            .map(a -> new NamedIn(a.id(), a.key(), c.name()));
                })
                .toList();
    }

    private static GiveAways finder(List<CandidateView> candidates) {
        return GiveAways.of(
                new Terms(candidates.stream().map(CandidateView::name).toList(), List.of(), List.of()));
    }

    /** Answers as raters read them. */
    private record Masked(List<CandidateView> candidates, Map<FactsOfAnswers.Whole, String> texts) {}

    private Masked masked(StudyId study) {
        List<FactsOfAnswers.Whole> all = stretches.toSoundPrompts(study);
        Map<AnswerId, List<Mask>> decided = stretches.decidedIn(study);
        Map<FactsOfAnswers.Whole, String> texts = new IdentityHashMap<>();
        all.forEach(a -> texts.put(a, masked(a.text(), decided.getOrDefault(a.id(), List.of()))));
        return new Masked(candidates.ofStudy(study), texts);
    }

    private static boolean names(GiveAways finder, String text) {
        return finder.in(text).all().stream().anyMatch(g -> g.sort() == GiveAway.Sort.NAME);
    }

    @SystemOnly
    public List<String> words(StudyId study) {
        return maskings.findById(study).map(MaskingOfStudy::words).orElse(List.of());
    }

    /** All that was decided in a study, by answer. */
    @SystemOnly
    public Map<AnswerId, List<Decided>> decided(StudyId study) {
        Map<AnswerId, List<Decided>> all = new HashMap<>();
        stretches
                .decidedIn(study)
                .forEach((answer, masks) ->
                        all.put(answer, masks.stream().map(Mask::decided).toList()));
        return all;
    }

    /** Lays out the masking of a study that is brought in. */
    @SystemOnly
    @Transactional
    public void add(StudyId study, List<String> words, Map<AnswerId, List<Decided>> decided) {
        entities.persist(MaskingOfStudy.of(study, words));
        decided.forEach((answer, all) -> all.forEach(d -> entities.persist(Mask.of(answer, d))));
    }

    /** What a stretch of a text must be for a decision on it to hold; empty if it is. */
    public static Optional<String> fault(String text, Decided decided) {
        if (decided.from() < 0 || decided.to() <= decided.from() || decided.to() > text.length()) {
            return Optional.of("a stretch within the answer's " + text.length() + " characters");
        }
        return text.substring(decided.from(), decided.to()).equals(decided.found())
                ? Optional.empty()
                : Optional.of("what stands there: " + text.substring(decided.from(), decided.to()));
    }
}
