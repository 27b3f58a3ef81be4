package org.mossbank.server.prompt.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KeyPoint;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.StartingFile;
import org.springframework.stereotype.Component;

/** What can be seen from a prompt alone: gaps, key points that point nowhere, wording against its own constraints. */
@Component
class WordingCheck implements PromptCheck {
    private static final String EXPLANATION = "explanation";
    private static final Pattern CODE = Pattern.compile("(?s)```.*?```|~~~.*?~~~");
    private static final Pattern SENTENCE = Pattern.compile("[.!?;\\n]+");
    private static final Pattern NEGATION =
            Pattern.compile("\\b(no|not|never|without|avoid|don't|mustn't|shouldn't|nothing|neither|nor)\\b");
    private static final Pattern WORD = Pattern.compile("[^\\p{L}\\p{N}]+");
    /** Too common to tell what a sentence is about. */
    private static final Set<String> COMMON = Set.of(
            "no", "not", "never", "without", "avoid", "don", "mustn", "shouldn", "nothing", "neither", "nor", "the",
            "a", "an", "any", "and", "or", "of", "to", "in", "on", "for", "with", "must", "may", "should", "do", "doe",
            "be", "is", "are", "it", "its", "this", "that", "new", "use", "other", "only", "all", "as", "at", "by",
            "from", "keep", "stay", "same");

    @Override
    public Function<PromptView, List<PromptWarning>> of(StudyId study) {
        return prompt -> check(prompt.kind().key(), prompt.content());
    }

    static List<PromptWarning> check(String kind, PromptContent content) {
        List<PromptWarning> warnings = new ArrayList<>();
        if (content.keyPoints().isEmpty()) {
            warnings.add(new PromptWarning(
                    "no-key-points", "There are no key points: each rater will have another idea of a right answer."));
        }
        if (!content.language().chars().anyMatch(Character::isDigit)) {
            warnings.add(new PromptWarning(
                    "no-language-version",
                    content.language().isBlank()
                            ? "No language and version are named."
                            : "“" + content.language() + "” names no version."));
        }
        places(content).forEach(warnings::add);
        if (kind.equals(EXPLANATION)) {
            explanation(content).forEach(warnings::add);
        }
        contradictions(content).forEach(warnings::add);
        return warnings;
    }

    /** Key points whose file or lines the starting code does not have. */
    private static List<PromptWarning> places(PromptContent content) {
        List<PromptWarning> warnings = new ArrayList<>();
        for (KeyPoint point : content.keyPoints()) {
            if (point.file() == null) {
                continue;
            }
            StartingFile file = content.startingFiles().stream()
                    .filter(f -> f.path().equals(point.file()))
                    .findFirst()
                    .orElse(null);
            if (file == null) {
                warnings.add(new PromptWarning(
                        "key-point-without-file",
                        "“" + brief(point.text()) + "” points at " + point.file()
                                + ", which is not in the starting code."));
            } else if (point.toLine() != null
                    && point.toLine() > file.text().lines().count()) {
                warnings.add(new PromptWarning(
                        "key-point-beyond-file",
                        "“" + brief(point.text()) + "” points at line " + point.toLine() + " of " + point.file()
                                + ", which is shorter."));
            }
        }
        return warnings;
    }

    private static List<PromptWarning> explanation(PromptContent content) {
        if (content.startingFiles().isEmpty()) {
            return CODE.matcher(content.request()).find()
                    ? List.of()
                    : List.of(new PromptWarning("nothing-to-explain", "There is no code to explain."));
        }
        return content.keyPoints().stream()
                .filter(p -> p.stance() == KeyPoint.Stance.MUST_CONTAIN && p.file() == null)
                .map(p -> new PromptWarning(
                        "key-point-nowhere",
                        "“" + brief(p.text()) + "” does not say where in the starting code it can be seen."))
                .toList();
    }

    /**
     * A constraint that forbids what a sentence of the request asks for, or the reverse: both are about the same words,
     * and just one of them says no.
     */
    private static List<PromptWarning> contradictions(PromptContent content) {
        List<String> sentences = Arrays.stream(
                        SENTENCE.split(CODE.matcher(content.request()).replaceAll("\n")))
                .filter(s -> !s.isBlank())
                .toList();
        List<PromptWarning> warnings = new ArrayList<>();
        for (String constraint : content.constraints()) {
            Set<String> about = words(constraint);
            sentences.stream()
                    .filter(s -> says(s) != says(constraint) && sharesEnough(about, words(s)))
                    .findFirst()
                    .ifPresent(s -> warnings.add(new PromptWarning(
                            "against-constraint",
                            "“" + brief(s.strip()) + "” may go against the constraint “" + brief(constraint) + "”.")));
        }
        return warnings;
    }

    /** Whether a sentence says no. */
    private static boolean says(String sentence) {
        return NEGATION.matcher(sentence.toLowerCase(Locale.ROOT)).find();
    }

    private static boolean sharesEnough(Set<String> constraint, Set<String> sentence) {
        long shared = constraint.stream().filter(sentence::contains).count();
        return !constraint.isEmpty() && shared * 2 > constraint.size();
    }

    /** What a sentence is about: its words in lower case without endings and common words. */
    private static Set<String> words(String sentence) {
        Set<String> words = new LinkedHashSet<>();
        for (String word : WORD.split(sentence.toLowerCase(Locale.ROOT))) {
            String stem = stem(word);
            if (stem.length() > 1 && !COMMON.contains(stem) && !COMMON.contains(word)) {
                words.add(stem);
            }
        }
        return words;
    }

    private static String stem(String word) {
        if (word.endsWith("ies") && word.length() > 4) {
            return word.substring(0, word.length() - 3) + "y";
        }
        return word.endsWith("s") && word.length() > 3 ? word.substring(0, word.length() - 1) : word;
    }

    private static String brief(String text) {
        int most = 60;
        return text.length() <= most ? text : text.substring(0, most - 1) + "…";
    }
}
