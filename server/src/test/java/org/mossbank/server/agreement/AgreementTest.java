package org.mossbank.server.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Figures of a small study that can be worked out by hand. */
public class AgreementTest extends ServerTest {
    private static final List<String> PROMPTS = List.of("mean-level", "spring-tide", "lost-hour", "flat-line");
    private String study;

    /** Both raters give osier 1 and teasel 3 on correctness; on one prompt juri gives osier 2. On idiom all is 4. */
    @BeforeClass
    public void bringInGraded() {
        StringBuilder sheets = new StringBuilder("rater,prompt,place,sent_at\n");
        StringBuilder grades = new StringBuilder("rater,answer,criterion,level\n");
        for (String rater : List.of("bram", "juri")) {
            for (String prompt : PROMPTS) {
                sheets.append(rater + "," + prompt + "," + (PROMPTS.indexOf(prompt) + 1) + ",2026-03-10T09:14:04Z\n");
                for (String candidate : List.of("osier", "teasel")) {
                    boolean parts = rater.equals("juri") && prompt.equals("lost-hour") && candidate.equals("osier");
                    int level = parts ? 2 : candidate.equals("osier") ? 1 : 3;
                    grades.append(rater + "," + prompt + "-" + candidate + ",correctness," + level + "\n");
                    grades.append(rater + "," + prompt + "-" + candidate + ",idiom,4\n");
                }
            }
        }
        study = bringIn(withTable("sheets", sheets.toString()).andThen(withTable("grades", grades.toString())));
    }

    private JsonNode get(String what) {
        return as(LEAD).get("/api/studies/" + study + what).json();
    }

    @Test
    public void alphaIsThatOfTheGrades() {
        JsonNode correctness = get("/agreement").at("/criteria/0/overall");
        // by hand: levels 1, 2, 3 were given 7, 1, 8 times; distances² (1, 2) = 4², (2, 3) = 4.5², (1, 3) = 8.5²;
        // observed: one pair (1, 2) in both orders; 1 − 15 · 16 / (7 · 16 + 8 · 20.25 + 56 · 72.25)
        assertThat(correctness.at("/alpha/value").asDouble())
                .isCloseTo(1 - 15.0 * 16 / (7 * 16 + 8 * 20.25 + 56 * 72.25), within(1e-9));
        assertThat(correctness.at("/exact/value").asDouble()).isCloseTo(7 / 8.0, within(1e-9));
        assertThat(correctness.at("/withinOne/value").asDouble()).isEqualTo(1);
    }

    @Test
    public void whatPartsRatersIsFound() {
        JsonNode correctness = get("/agreement/diagnosis").at("/criteria/0");
        assertThat(correctness.at("/prompts/0/title").asString()).isEqualTo("Where is the lost hour?");
        assertThat(correctness.at("/prompts/0/share").asDouble()).isEqualTo(1);
        assertThat(correctness.at("/levelPairs/0/lower").asInt()).isEqualTo(1);
        assertThat(correctness.at("/levelPairs/0/higher").asInt()).isEqualTo(2);
        assertThat(correctness.at("/merged/0/lower").asInt()).isEqualTo(1);
        assertThat(correctness.at("/merged/0/alpha/value").asDouble()).isEqualTo(1);
        // Without that prompt all agree.
        assertThat(correctness.at("/withoutPrompt/0/title").asString()).isEqualTo("Where is the lost hour?");
        assertThat(correctness.at("/withoutPrompt/0/alpha/value").asDouble()).isEqualTo(1);
        assertThat(correctness.at("/useOfScale").values())
                .anySatisfy(u -> assertThat(u.path("counts").toString()).isEqualTo("[0,4,0,4,0]"))
                .anySatisfy(u -> assertThat(u.path("counts").toString()).isEqualTo("[0,3,1,4,0]"));
    }

    /** One answer of eight parts the two by a level, so that each coefficient can be worked out by hand. */
    @Test
    public void everyCoefficientIsThere() {
        JsonNode all = get("/agreement/coefficients").path("within");
        assertThat(all.get(0).path("answers").asInt()).isEqualTo(8);
        assertThat(all.get(0).has("kindId")).isFalse();
        assertThat(coefficient(all.get(0), "EXACT")).isCloseTo(7 / 8.0, within(1e-9));
        // Shares of levels 1, 2, 3 over both: 7, 1, 8 of 16; (7/8 − Σp²) / (1 − Σp²).
        double chance = (49 + 1 + 64) / 256.0;
        assertThat(coefficient(all.get(0), "FLEISS_KAPPA")).isCloseTo((7 / 8.0 - chance) / (1 - chance), within(1e-9));
        assertThat(coefficient(all.get(0), "ALPHA_ORDINAL"))
                .isCloseTo(
                        get("/agreement").at("/criteria/0/overall/alpha/value").asDouble(), within(1e-12));
        assertThat(all.get(0).path("coefficients").size()).isEqualTo(12);
        assertThat(all.get(1).has("kindId")).as("then within each kind").isTrue();
    }

    private static double coefficient(JsonNode within, String name) {
        return within.path("coefficients")
                .valueStream()
                .filter(c -> c.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .at("/figure/value")
                .asDouble();
    }

    @Test
    public void twoRatersAreCrossedAndACellNamesItsAnswers() {
        JsonNode report = get("/agreement");
        String criterion = report.at("/criteria/0/criterionId").asString();
        String bram = idOf(report, "Bram Okkers");
        String juri = idOf(report, "Juri Halvard");
        String pair = "/agreement/crossing?criterionId=" + criterion + "&firstId=" + bram + "&secondId=" + juri;
        JsonNode all = get(pair);
        // Osier 1 and 1 on three prompts, 1 and 2 on one; teasel 3 and 3 on four.
        assertThat(all.path("counts").toString())
                .isEqualTo("[[0,0,0,0,0],[0,3,1,0,0],[0,0,0,0,0],[0,0,0,4,0],[0,0,0,0,0]]");
        assertThat(all.path("answers").size()).isZero();
        JsonNode cell = get(pair + "&firstLevel=1&secondLevel=2").path("answers");
        assertThat(cell.size()).isEqualTo(1);
        assertThat(cell.at("/0/promptTitle").asString()).isEqualTo("Where is the lost hour?");
        assertThat(as(LEAD).get("/api/studies/" + study + pair.replace(criterion, bram))
                        .status())
                .as("no such criterion")
                .isEqualTo(404);
    }

    private String narrowed(String... to) {
        String criterion = get("/agreement").at("/criteria/0/criterionId").asString();
        return "/agreement/narrowed?criterionId=" + criterion + "&" + String.join("&", to);
    }

    /** All that parts the two is one answer, 1 against 2. */
    @Test
    public void whatPartsRatersIsNarrowedDown() {
        JsonNode all = get(narrowed());
        assertThat(all.path("cells").size()).as("2 criteria × 2 kinds").isEqualTo(4);
        assertThat(all.at("/levelPairs/0").toString())
                .isEqualTo("{\"lower\":1,\"higher\":2,\"share\":1.0,\"pairs\":1}");
        assertThat(all.at("/raterPairs/0/answers").asInt()).isEqualTo(8);
        assertThat(all.at("/raterPairs/0/apart").asInt()).isEqualTo(1);
        assertThat(all.path("splits").size()).as("a level apart is no split").isZero();

        JsonNode levels = get(narrowed("lower=1", "higher=2"));
        assertThat(levels.path("splitCount").asInt()).isEqualTo(1);
        assertThat(levels.at("/splits/0/promptTitle").asString()).isEqualTo("Where is the lost hour?");
        assertThat(levels.at("/splits/0/grades")
                        .valueStream()
                        .map(g -> g.path("level").asInt()))
                .containsExactly(1, 2);
        assertThat(levels.path("prompts").size()).isEqualTo(1);

        JsonNode other = get(narrowed("lower=1", "higher=3"));
        assertThat(other.path("splitCount").asInt()).isZero();
        assertThat(other.path("levelPairs")).isEqualTo(all.path("levelPairs"));

        String faultless = get("/agreement/diagnosis")
                .at("/criteria/0/prompts")
                .valueStream()
                .filter(p -> p.path("share").asDouble() == 0)
                .findFirst()
                .orElseThrow()
                .path("promptId")
                .asString();
        JsonNode prompt = get(narrowed("promptId=" + faultless));
        assertThat(prompt.at("/raterPairs/0/answers").asInt()).isEqualTo(2);
        assertThat(prompt.at("/raterPairs/0/apart").asInt()).isZero();
        assertThat(prompt.path("prompts")).isEqualTo(all.path("prompts"));
        assertThat(prompt.path("cells").size()).as("one kind is left of each").isEqualTo(2);
    }

    @Test
    public void halfOfTwoLevelsIsRefused() {
        for (String wrong : List.of("lower=1", "higher=2", "lower=2&higher=1", "lower=-1&higher=1")) {
            assertThat(as(LEAD).get("/api/studies/" + study + narrowed(wrong)).status())
                    .as(wrong)
                    .isEqualTo(400);
        }
        assertThat(as(LEAD).get("/api/studies/" + study + narrowed("lower=7", "higher=9"))
                        .json()
                        .path("splitCount")
                        .asInt())
                .isZero();
        assertThat(as(LEAD).get("/api/studies/" + study + "/agreement/narrowed?criterionId=" + study)
                        .status())
                .isEqualTo(404);
    }

    private static String idOf(JsonNode report, String name) {
        return report.path("raters")
                .valueStream()
                .filter(r -> r.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .path("raterId")
                .asString();
    }

    /** How strict another is, is between them and the lead. */
    @Test(
            dependsOnMethods = {
                "whatPartsRatersIsFound",
                "twoRatersAreCrossedAndACellNamesItsAnswers",
                "whatPartsRatersIsNarrowedDown"
            })
    public void aRaterIsToldTheirOwnPlaceAlone() {
        as(LEAD).post("/api/studies/" + study + "/round/close", Map.of("reason", ""));
        JsonNode own = as(RATER).get("/api/studies/" + study + "/agreement").json();
        assertThat(own.path("severity").size()).isEqualTo(1);
        assertThat(own.at("/severity/0/name").asString()).isEqualTo("Bram Okkers");
        assertThat(own.path("criteria")).isEqualTo(get("/agreement").path("criteria"));
        assertThat(get("/agreement").path("severity").size()).isEqualTo(2);
        assertThat(as(RATER)
                        .get("/api/studies/" + study + "/agreement/diagnosis")
                        .status())
                .isEqualTo(403);
    }

    @Test
    public void whereAllIsAlikeThereIsNothingToDiagnose() {
        JsonNode idiom = get("/agreement/diagnosis").at("/criteria/1");
        assertThat(idiom.path("prompts").size()).isZero();
        assertThat(idiom.at("/alpha/undefinedReason").asString()).isNotEmpty();
    }
}
