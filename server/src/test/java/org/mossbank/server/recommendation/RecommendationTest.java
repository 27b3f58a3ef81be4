package org.mossbank.server.recommendation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import java.util.function.Consumer;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Figures of small studies that can be worked out by hand. */
public class RecommendationTest extends ServerTest {
    private static Consumer<Map<String, byte[]>> put(String file, String from, String to) {
        return files -> files.put(
                file, bytes(new String(files.get(file), java.nio.charset.StandardCharsets.UTF_8).replace(from, to)));
    }

    private JsonNode recommendation(String study) {
        return recommendation(as(LEAD), study);
    }

    private ApiClient closed(String study) {
        recommendation(study);
        return as(LEAD);
    }

    private static double standing(JsonNode report, int place) {
        return report.at("/overall/" + place + "/adjusted/value").asDouble();
    }

    @Test
    public void criteriaWeighWhatTheRubricSays() {
        JsonNode report = recommendation(bringIn(SmallStudy.graded(SmallStudy.osier(1, 3))));

        // by hand: (2 · 1 + 1 · 3) / 3 / 4 of 100
        assertThat(standing(report, 0)).isCloseTo(100, within(1e-9));
        assertThat(standing(report, 1)).isCloseTo(500 / 12.0, within(1e-9));
        assertThat(report.path("headline").asString()).isEqualTo("We recommend Teasel.");
        // Each by itself: 25 of 100 on correctness, 75 on idiom.
        assertThat(report.at("/byCriterion/0/standings/1/adjusted/value").asDouble())
                .isCloseTo(25, within(1e-9));
        assertThat(report.at("/byCriterion/1/standings/1/adjusted/value").asDouble())
                .isCloseTo(75, within(1e-9));
    }

    @Test
    public void aGateCapsTheScoreAndNotTheCriterion() {
        JsonNode report = recommendation(
                bringIn(
                        SmallStudy.graded(SmallStudy.osier(1, 4))
                                .andThen(
                                        put(
                                                "study.json",
                                                "\"minimumRaters\": 2",
                                                "\"minimumRaters\": 2, \"gate\": {\"criterion\": \"correctness\", \"level\": 1, \"cap\": 40}"))));
        assertThat(standing(report, 1)).isCloseTo(40, within(1e-9));
        assertThat(report.at("/byCriterion/0/standings/1/adjusted/value").asDouble())
                .isCloseTo(25, within(1e-9));
    }

    @Test
    public void anAnswerWithoutTextGetsTheLowestLevelsByTheRule() {
        Consumer<Map<String, byte[]>> failed = SmallStudy.graded(SmallStudy.osier(2, 2))
                .andThen(put("answers.csv", "flat-line,osier,1,complete", "flat-line,osier,1,timed-out"))
                .andThen(files -> files.put("text/flat-line-osier.md", bytes("")));

        JsonNode lowest = recommendation(bringIn(failed));
        JsonNode leftOut = recommendation(bringIn(failed.andThen(
                put("study.json", "\"minimumRaters\": 2", "\"minimumRaters\": 2, \"failedAnswers\": \"left-out\""))));

        // by hand: 50 on three prompts and nothing on the fourth, whatever raters wrote; or 50 on three.
        assertThat(lowest.at("/failed/answers").asInt()).isEqualTo(1);
        assertThat(lowest.at("/differences/0/difference/value").asDouble()).isCloseTo(62.5, within(1e-9));
        assertThat(leftOut.at("/differences/0/difference/value").asDouble()).isCloseTo(50, within(1e-9));
        assertThat(lowest.at("/failed/otherwise").isMissingNode()
                        || lowest.at("/failed/otherwise").isNull())
                .as("the outcome is the same")
                .isTrue();
    }

    /** Nobody is given what is not there, and what somebody wrote of it before says nothing of how raters agree. */
    @Test
    public void anAnswerWithoutTextIsOnNoSheetAndInNoAgreement() {
        Consumer<Map<String, byte[]>> without = put(
                        "answers.csv", "flat-line,osier,1,complete", "flat-line,osier,1,failed")
                .andThen(files -> files.put("text/flat-line-osier.md", bytes("")));
        String drawn = bringIn(without);
        int answers = 0;
        for (JsonNode sheet : sheets(as(RATER), drawn)) {
            answers += as(RATER)
                    .get("/api/sheets/" + sheet.path("id").asString())
                    .json()
                    .path("answers")
                    .size();
        }
        assertThat(answers).isEqualTo(7);

        // Raters part on that answer alone.
        SmallStudy.Levels apart = (rater, prompt, candidate, criterion) ->
                candidate.equals("teasel") ? 4 : prompt.equals("flat-line") && rater.equals("juri") ? 0 : 2;
        String graded = bringIn(SmallStudy.graded(apart).andThen(without));
        JsonNode agreement =
                as(LEAD).get("/api/studies/" + graded + "/agreement").json();
        assertThat(agreement.at("/criteria/0/overall/exact/value").asDouble()).isEqualTo(1);
        assertThat(agreement.path("splitCount").asInt()).isZero();
    }

    @Test
    public void whatItHangsOnIsTold() {
        String study = bringIn(SmallStudy.graded(SmallStudy.osier(2, 2)));
        JsonNode robustness = closed(study)
                .get("/api/studies/" + study + "/recommendation/robustness")
                .json();
        // Of two raters neither can be spared: what one alone gave may be nothing but that one.
        assertThat(robustness.path("sentence").asString())
                .isEqualTo(
                        "It hangs on Bram Okkers and Juri Halvard: without any one of them it would be another or none."
                                + " It holds for 100 % of weightings.");
        // Four prompts, two raters, two kinds, two criteria.
        assertThat(robustness.path("without").size()).isEqualTo(10);
        assertThat(robustness.path("checks").size()).isEqualTo(3);
    }

    /** Ahead on idiom, and on correctness in one prompt, so that raters can agree on it. */
    @Test
    public void theCriterionThatCarriesItIsNamed() {
        String study =
                bringIn(SmallStudy.graded((rater, prompt, candidate, criterion) -> criterion.equals("correctness")
                        ? prompt.equals("mean-level") ? 4 : 3
                        : candidate.equals("teasel") ? 4 : 0));
        JsonNode robustness = closed(study)
                .get("/api/studies/" + study + "/recommendation/robustness")
                .json();
        assertThat(robustness.path("sentence").asString())
                .startsWith("It hangs on")
                .contains("the criterion Idiom");
        assertThat(robustness.path("without").values())
                .filteredOn(w -> w.path("changes").asBoolean())
                .extracting(w -> w.path("factor").asString())
                .containsOnly("RATER", "CRITERION");
        assertThat(robustness.at("/along/1/points/0/says").asString()).isNotEqualTo("Teasel recommended");
        assertThat(robustness.at("/along/1/points/20/says").asString()).isEqualTo("Teasel recommended");
    }

    @Test
    public void costsOfDifferentCurrenciesDecideNothing() {
        String header = "answer,prompt,candidate,attempt,outcome,file";
        Consumer<Map<String, byte[]>> costs = files -> {
            String[] rows = new String(files.get("answers.csv"), java.nio.charset.StandardCharsets.UTF_8).split("\n");
            StringBuilder with = new StringBuilder(header + ",cost,currency\n");
            for (int i = 1; i < rows.length; i++) {
                with.append(rows[i]).append(rows[i].contains("teasel") ? ",0.02,EUR\n" : ",0.01,JPY\n");
            }
            files.put("answers.csv", bytes(with.toString()));
        };
        JsonNode report =
                recommendation(bringIn(SmallStudy.graded(SmallStudy.osier(4, 4)).andThen(costs)));
        assertThat(report.at("/costs/why").asString()).isEqualTo("costs are in different currencies");
        JsonNode alike = recommendation(bringIn(
                SmallStudy.graded(SmallStudy.osier(4, 4)).andThen(costs).andThen(put("answers.csv", "JPY", "EUR"))));
        assertThat(alike.at("/costs/means").values())
                .extracting(m -> m.path("mean").asDouble())
                .containsExactlyInAnyOrder(0.01, 0.02);
        assertThat(alike.at("/costs/prompts").asInt()).isEqualTo(4);
    }

    /** Teasel is always ahead at debugging; at explaining osier is, once. Over both kinds nothing can be told. */
    @Test
    public void kindsAreToldApartWhereTheBriefSaysSo() {
        SmallStudy.Levels kinds = (rater, prompt, candidate, criterion) -> {
            if (SmallStudy.PROMPTS.indexOf(prompt) > 1) {
                return candidate.equals("teasel") ? 4 : 0;
            }
            return candidate.equals("osier") && prompt.equals("mean-level") ? 4 : 0;
        };
        Consumer<Map<String, byte[]>> rule =
                put("study.json", "\"minimumRaters\": 2", "\"minimumRaters\": 2, \"byKind\": true");
        JsonNode report = recommendation(bringIn(SmallStudy.graded(kinds).andThen(rule)));
        assertThat(report.path("outcome").asString()).isEqualTo("BY_KIND");
        assertThat(report.path("headline").asString())
                .isEqualTo("No candidate for all kinds. For debugging we recommend Teasel.");
        assertThat(report.path("findings").values())
                .extracting(f -> f.path("sentence").asString())
                .contains("Undecided for explanation.");
        assertThat(report.path("byKind").size()).isEqualTo(2);
        assertThat(recommendation(bringIn(SmallStudy.graded(kinds)))
                        .path("outcome")
                        .asString())
                .isNotEqualTo("BY_KIND");
    }
}
