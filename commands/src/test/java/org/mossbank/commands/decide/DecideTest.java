package org.mossbank.commands.decide;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

public class DecideTest {
    private static final JsonMapper MAPPER = JsonMapper.shared();

    private static Path write(Path folder, String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    private static Path folder() throws IOException {
        return Files.createTempDirectory("decide");
    }

    private static String printed(Path rule, Path grades) throws IOException {
        PrintStream before = System.out;
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        System.setOut(new PrintStream(out, true, StandardCharsets.UTF_8));
        try {
            Decide.main(new String[] {rule.toString(), grades.toString()});
        } finally {
            System.setOut(before);
        }
        return out.toString(StandardCharsets.UTF_8);
    }

    /** Candidate b stands 20 points above a, but for noise, on 8 prompts of two kinds by 3 raters. */
    private static String scores() {
        Random random = new Random(1);
        StringBuilder csv = new StringBuilder("candidate,prompt,kind,rater,score\n");
        for (int p = 0; p < 8; p++) {
            for (int r = 0; r < 3; r++) {
                for (String candidate : new String[] {"a", "b"}) {
                    double score = (candidate.equals("b") ? 70 : 50) + 4 * random.nextGaussian();
                    csv.append(candidate)
                            .append(",p")
                            .append(p)
                            .append(",k")
                            .append(p % 2)
                            .append(",r")
                            .append(r)
                            .append(',')
                            .append(score)
                            .append('\n');
                }
            }
        }
        return csv.toString();
    }

    @Test
    public void scoresGiveAnOutcomeWithAllThatItRestsOn() throws IOException {
        Path folder = folder();
        JsonNode study = MAPPER.readTree(
                printed(write(folder, "rule.json", "{\"margin\": 5}"), write(folder, "grades.csv", scores())));

        assertThat(study.path("outcome").asString()).isEqualTo("RECOMMENDED");
        assertThat(study.path("leader").asString()).isEqualTo("b");
        assertThat(study.at("/findings/0/type").asString()).isEqualTo("ClearlyAhead");
        assertThat(study.at("/field/0/best").asBoolean()).isTrue();
        assertThat(study.at("/field/1/out").asBoolean()).isTrue();
        assertThat(study.at("/differences/0/estimate").asDouble()).isCloseTo(20, within(4.0));
        assertThat(study.at("/differences/0/low").asDouble()).isPositive();
        assertThat(study.at("/standings/0/cells").asInt()).isEqualTo(24);
        assertThat(study.path("agreement")).isEmpty();
    }

    @Test
    public void levelsAreWeighedAndTheirAgreementMustReachItsFloor() throws IOException {
        Path folder = folder();
        Random random = new Random(2);
        StringBuilder csv = new StringBuilder("candidate,prompt,rater,criterion,level\n");
        for (int p = 0; p < 8; p++) {
            for (int r = 0; r < 3; r++) {
                for (int c = 0; c < 2; c++) {
                    csv.append("c" + c + ",p" + p + ",r" + r + ",right," + random.nextInt(5) + "\n");
                    csv.append("c" + c + ",p" + p + ",r" + r + ",style,\n");
                }
            }
        }
        Path rule = write(
                folder,
                "rule.json",
                "{\"criteria\": [{\"key\": \"right\", \"weight\": 0.7, \"highest\": 4, \"floor\": 0.6},"
                        + " {\"key\": \"style\", \"weight\": 0, \"highest\": 4}]}");

        JsonNode study = MAPPER.readTree(printed(rule, write(folder, "grades.csv", csv.toString())));

        assertThat(study.path("outcome").asString()).isEqualTo("WITHHELD");
        assertThat(study.at("/findings/0/type").asString()).isEqualTo("AgreementBelowFloor");
        assertThat(study.at("/agreement/0/criterion").asString()).isEqualTo("right");
        assertThat(study.at("/agreement/0/low").asDouble())
                .isLessThan(study.at("/agreement/0/value").asDouble());
    }

    @Test
    public void aFolderGivesALineAStudy() throws IOException {
        Path folder = folder();
        Path studies = Files.createDirectory(folder.resolve("studies"));
        write(studies, "one.csv", scores());
        write(studies, "two.csv", "candidate,prompt,rater,score\na,p,r,50\nb,p,r,60\n");
        write(studies, "notes.txt", "no study");

        String[] lines = printed(write(folder, "rule.json", "{}"), studies).split("\n");

        assertThat(lines).hasSize(2);
        JsonNode two = MAPPER.readTree(lines[1]);
        assertThat(two.path("study").asString()).isEqualTo("two.csv");
        assertThat(two.path("outcome").asString()).isEqualTo("WITHHELD");
        assertThat(two.at("/differences/0/standardErrorUndefined").asString()).isEqualTo("TOO_FEW_TO_RESAMPLE");
    }

    @Test
    public void aRuleWithAWordThatIsNotKnownIsRefused() throws IOException {
        Path folder = folder();
        Path rule = write(folder, "rule.json", "{\"margins\": 5}");
        assertThatThrownBy(() -> Decide.main(new String[] {rule.toString(), rule.toString()}))
                .hasMessageContaining("margins");
    }

    /** Good at one kind each: over both kinds nothing can be told, within each it can. */
    @Test
    public void kindsAreToldApartWhereTheRuleSaysSo() throws IOException {
        Path folder = folder();
        Random random = new Random(1);
        StringBuilder csv = new StringBuilder("candidate,prompt,kind,rater,score\n");
        for (int p = 0; p < 12; p++) {
            for (int r = 0; r < 3; r++) {
                for (String candidate : new String[] {"a", "b"}) {
                    double score = 50 + (candidate.equals("a") == (p % 2 == 0) ? 20 : -20) + 2 * random.nextGaussian();
                    csv.append(candidate + ",p" + p + ",k" + p % 2 + ",r" + r + "," + score + "\n");
                }
            }
        }
        Path grades = write(folder, "grades.csv", csv.toString());

        JsonNode apart =
                MAPPER.readTree(printed(write(folder, "rule.json", "{\"byKind\": true, \"margin\": 0.1}"), grades));
        assertThat(apart.path("outcome").asString()).isEqualTo("BY_KIND");
        assertThat(apart.at("/findings/0/kind").asString()).isEqualTo("k0");
        assertThat(apart.at("/findings/0/candidate").asString()).isEqualTo("a");
        JsonNode whole = MAPPER.readTree(printed(write(folder, "whole.json", "{\"margin\": 0.1}"), grades));
        assertThat(whole.path("outcome").asString()).isNotEqualTo("BY_KIND");
    }

    @Test
    public void anEarlyLookSpendsLess() throws IOException {
        Path folder = folder();
        Path grades = write(folder, "grades.csv", scores());
        JsonNode early = MAPPER.readTree(printed(write(folder, "rule.json", "{\"looks\": [0.25]}"), grades));
        JsonNode last = MAPPER.readTree(printed(write(folder, "last.json", "{\"looks\": [0.25, 1]}"), grades));
        assertThat(early.path("allowance").asDouble()).isLessThan(1e-4);
        assertThat(last.path("allowance").asDouble()).isBetween(0.04, 0.05);
    }

    @Test
    public void whatFailedGetsTheLowestLevelsOrCountsNowhere() throws IOException {
        Path folder = folder();
        String csv = "candidate,prompt,rater,outcome,score\n"
                + "a,p,r,complete,50\na,q,r,failed,\nb,p,r,complete,60\nb,q,r,complete,60\n"
                + "a,p,s,complete,50\na,q,s,failed,\nb,p,s,complete,60\nb,q,s,complete,60\n";
        Path grades = write(folder, "grades.csv", csv);
        JsonNode lowest = MAPPER.readTree(printed(write(folder, "rule.json", "{}"), grades));
        JsonNode leftOut =
                MAPPER.readTree(printed(write(folder, "out.json", "{\"failedAnswers\": \"LEFT_OUT\"}"), grades));
        // by hand: (10 + 60) / 2 on both prompts, and 10 on the one that both answered
        assertThat(lowest.at("/differences/0/estimate").asDouble()).isCloseTo(35, within(1e-9));
        assertThat(leftOut.at("/differences/0/estimate").asDouble()).isCloseTo(10, within(1e-9));
    }
}
