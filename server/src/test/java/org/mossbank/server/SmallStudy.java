package org.mossbank.server;

import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/** The hand-written study, wholly graded, so that its figures can be worked out by hand. */
public final class SmallStudy {
    public static final List<String> PROMPTS = List.of("mean-level", "spring-tide", "lost-hour", "flat-line");

    private SmallStudy() {}

    /** What level a rater gives an answer on a criterion. */
    public interface Levels {
        int of(String rater, String prompt, String candidate, String criterion);
    }

    /** Two raters, four prompts of two kinds, two candidates; correctness weighs 2 and idiom 1, levels go to 4. */
    public static Consumer<Map<String, byte[]>> graded(Levels levels) {
        StringBuilder sheets = new StringBuilder("rater,prompt,place,sent_at\n");
        StringBuilder grades = new StringBuilder("rater,answer,criterion,level\n");
        for (String rater : List.of("bram", "juri")) {
            for (String prompt : PROMPTS) {
                sheets.append(rater + "," + prompt + "," + (PROMPTS.indexOf(prompt) + 1) + ",2026-03-10T09:14:04Z\n");
                for (String candidate : List.of("osier", "teasel")) {
                    String answer = prompt + "-" + candidate;
                    for (String criterion : List.of("correctness", "idiom")) {
                        grades.append(rater + "," + answer + "," + criterion + ","
                                + levels.of(rater, prompt, candidate, criterion) + "\n");
                    }
                }
            }
        }
        return ServerTest.withTable("sheets", sheets.toString())
                .andThen(ServerTest.withTable("grades", grades.toString()));
    }

    /** Teasel gets the highest level, osier so much on each criterion. */
    public static Levels osier(int correctness, int idiom) {
        return (rater, prompt, candidate, criterion) ->
                candidate.equals("teasel") ? 4 : criterion.equals("correctness") ? correctness : idiom;
    }
}
