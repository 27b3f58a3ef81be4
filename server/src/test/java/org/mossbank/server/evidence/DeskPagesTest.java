package org.mossbank.server.evidence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mossbank.server.StudyInTheMaking.ok;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javax.imageio.ImageIO;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Pictures of pages at the desk: pixels alone, of the answers on one's own sheet, and none that may name a candidate. */
public class DeskPagesTest extends ServerTest {
    private static final JsonMapper JSON = JsonMapper.shared();

    private static byte[] png() {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(new BufferedImage(8, 6, BufferedImage.TYPE_INT_RGB), "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static Map<String, Object> picture(String text, boolean unread) {
        return Map.of("width", 800, "height", 600, "step", 0, "text", text, "unread", unread);
    }

    /** Teasel's answer is masked somewhere; osier's is not. */
    private static final List<Map<String, Object>> OSIER =
            List.of(picture("A depth", false), picture("Made by Osier", false), picture("A chart", true));

    private static final List<Map<String, Object>> TEASEL =
            List.of(picture("A depth", false), picture("A chart", true));

    private static Consumer<Map<String, byte[]>> pages() {
        return files -> {
            StringBuilder table = new StringBuilder("of,place,file\n");
            Map.of("osier", OSIER, "teasel", TEASEL).forEach((answer, pictures) -> {
                String of = "trials/" + answer + ".json";
                Map<String, Object> result = new HashMap<>();
                JSON.readTree(files.get(of)).properties().forEach(p -> result.put(p.getKey(), p.getValue()));
                result.put("pictures", pictures);
                files.put(of, JSON.writeValueAsBytes(result));
                for (int i = 1; i <= pictures.size(); i++) {
                    String file = "trials/" + answer + "-" + i + ".png";
                    files.put(file, png());
                    table.append(of)
                            .append(',')
                            .append(i)
                            .append(',')
                            .append(file)
                            .append('\n');
                }
            });
            withTable("page-pictures", table.toString()).accept(files);
            withTable(
                            "masks",
                            "answer,from,to,found,sort,replacement,accepted,decided_at\n"
                                    + "mean-level-teasel,0,2,It,name,[masked],true,2026-03-02T09:00:00Z\n")
                    .accept(files);
        };
    }

    private record Desk(ApiClient rater, String path, List<JsonNode> answers) {
        /** Of osier's answer, or of teasel's. */
        JsonNode trial(boolean osier) {
            return answers.stream()
                    .filter(a -> (a.at("/result/pictures").size() == OSIER.size()) == osier)
                    .findFirst()
                    .orElseThrow();
        }

        ApiClient.Response picture(JsonNode trial, int place) {
            return rater.get(path + "/answers/" + trial.path("answerId").asString() + "/pictures/" + place);
        }
    }

    private Desk desk(String shown) {
        String study = bringIn(TriedStudy.shown(shown).andThen(pages()));
        ApiClient rater = as(RATER);
        for (JsonNode sheet : sheets(rater, study)) {
            String path = "/api/sheets/" + sheet.path("id").asString();
            List<JsonNode> answers = new ArrayList<>();
            ok(rater.get(path + "/trials")).path("answers").forEach(answers::add);
            if (ok(rater.get(path)).at("/answers/0/text").asString().contains("read depth")) {
                return new Desk(rater, path, answers);
            }
        }
        throw new AssertionError("no sheet has trials");
    }

    private static List<Boolean> held(JsonNode trial) {
        return trial.at("/result/pictures")
                .valueStream()
                .map(p -> p.path("isHeld").asBoolean())
                .toList();
    }

    @Test
    public void aPictureIsPixelsAlone() {
        Desk desk = desk("from-the-start");
        ApiClient.Response response = desk.picture(desk.trial(true), 0);
        assertThat(response.status()).isEqualTo(200);
        assertThat(response.raw().body()).startsWith(0x89, 'P', 'N', 'G');
        assertThat(response.raw().headers().firstValue("Content-Type")).contains("image/png");
        assertThat(response.raw().headers().firstValue("X-Content-Type-Options"))
                .contains("nosniff");
    }

    @Test
    public void onePictureThatNamesACandidateIsHeldBack() {
        Desk desk = desk("from-the-start");
        JsonNode osier = desk.trial(true);
        assertThat(held(osier)).containsExactly(false, true, false);
        assertThat(osier.toString()).doesNotContainIgnoringCase("osier");
        assertThat(desk.picture(osier, 1).status()).isEqualTo(404);
        assertThat(desk.picture(osier, 2).status()).isEqualTo(200);
    }

    /** What is drawn and cannot be read may show what is masked in the answer. */
    @Test
    public void whatCannotBeReadIsHeldBackWhereTheAnswerIsMasked() {
        Desk desk = desk("from-the-start");
        JsonNode teasel = desk.trial(false);
        assertThat(held(teasel)).containsExactly(false, true);
        assertThat(desk.picture(teasel, 1).status()).isEqualTo(404);
        assertThat(desk.picture(teasel, 2).status()).isEqualTo(404);
        assertThat(desk.picture(teasel, -1).status()).isEqualTo(404);
    }

    @Test
    public void thereAreNoneWhereTrialsAreNotShown() {
        Desk desk = desk("after-own-grade");
        for (JsonNode trial : desk.answers) {
            assertThat(trial.path("result").isMissingNode()).isTrue();
            assertThat(desk.picture(trial, 0).status()).isEqualTo(404);
        }
    }

    @Test
    public void ofASheetOfSomebodyElseThereAreNone() {
        Desk desk = desk("from-the-start");
        JsonNode osier = desk.trial(true);
        assertThat(as(LEAD).get(desk.path + "/answers/" + osier.path("answerId").asString() + "/pictures/0")
                        .status())
                .isEqualTo(404);
    }
}
