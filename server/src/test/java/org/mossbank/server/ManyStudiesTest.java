package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What is told over all of somebody's studies asks the database as often however many they are, and has an end. */
public class ManyStudiesTest extends ServerTest {
    private static final String SHEETS = "/api/sheets";
    private static final String SPLITS = "/api/splits";
    private static final List<String> PAGES = List.of(
            SHEETS,
            SPLITS,
            "/api/calibrations",
            "/api/read-backs",
            "/api/reminders",
            "/api/asked",
            "/api/my-studies",
            "/api/studies",
            "/api/deleted-studies");

    private static final int TIMES = 4;
    private static final int MORE = 3;

    @Test
    public void pagesAskAsOftenHoweverManyThereAre() {
        everySort();
        Map<String, Long> few = asked();
        for (int i = 0; i < MORE; i++) {
            everySort();
        }
        assertThat(asked())
                .allSatisfy((page, times) -> assertThat(times).as(page).isLessThanOrEqualTo(few.get(page) + 1));
    }

    @Test
    public void whoHasGradedInManyGetsThemAFewAtATimeAndEachOnce() {
        String open = parted().id();
        List<String> closed = new ArrayList<>();
        for (int i = 0; i < 22; i++) {
            StudyInTheMaking study = parted();
            study.post("/round/close", Map.of("reason", "That is all."));
            closed.add(0, study.id());
        }
        for (String list : List.of(SHEETS, SPLITS)) {
            List<String> first = studies(list, 0);
            assertThat(first)
                    .as(list)
                    .contains(open)
                    .containsAll(closed.subList(0, 20))
                    .doesNotContain(closed.get(20));
            assertThat(studies(list, 1))
                    .as(list)
                    .contains(closed.get(20), closed.get(21))
                    .doesNotContainAnyElementsOf(first);
            assertThat(studies(list, 9_999)).as(list).isEmpty();
        }
        assertThat(as(RATER).get(SPLITS + "?earlier=0").json().path("more").asBoolean())
                .isTrue();
        assertThat(as(RATER).get(SPLITS + "?earlier=9999").json().path("more").asBoolean())
                .isFalse();
    }

    private List<String> studies(String list, int earlier) {
        JsonNode page = as(RATER).get(list + "?earlier=" + earlier).json();
        return StudyInTheMaking.list(page.has("splits") ? page.path("splits") : page).stream()
                .map(s -> s.path("studyId").asString())
                .distinct()
                .toList();
    }

    private Map<String, Long> asked() {
        Map<String, Long> all = new TreeMap<>();
        for (String person : List.of(LEAD, RATER)) {
            PAGES.forEach(page -> all.put(person + " " + page, asked(person, page)));
        }
        return all;
    }

    /** One that is prepared, one that raters calibrate for, one with splits in an open round, and one that is over. */
    private void everySort() {
        StudyInTheMaking prepared = StudyInTheMaking.ready(as(LEAD));
        for (JsonNode prompt : prepared.get("/prompts")) {
            prepared.post(
                    "/prompts/" + prompt.path("id").asString() + "/read-backs", Map.of("readerId", idOf(as(RATER))));
        }
        StudyInTheMaking calibrating = StudyInTheMaking.ready(as(LEAD));
        List<String> two = StudyInTheMaking.list(calibrating.get("/prompts")).stream()
                .map(p -> p.path("id").asString())
                .limit(2)
                .toList();
        calibrating.post("/calibrations", Map.of("promptIds", two));
        StudyInTheMaking parted = parted();
        assertThat(as(LEAD).post(parted.path + "/raters/" + idOf(as(RATER)) + "/reminders", Map.of("words", "Please."))
                        .status())
                .isEqualTo(204);
        parted().post("/round/close", Map.of("reason", "That is all."));
    }

    private StudyInTheMaking parted() {
        StudyInTheMaking study = StudyInTheMaking.of(
                as(LEAD),
                bringIn(SmallStudy.graded((rater, prompt, candidate, criterion) -> rater.equals(RATER) ? 0 : 4)));
        assertThat(study.post("/splits/widest", Map.of("count", 2))
                        .path("count")
                        .asInt())
                .isEqualTo(2);
        return study;
    }

    private long asked(String person, String page) {
        ApiClient client = as(person);
        ApiClient.Response response = client.get(page);
        assertThat(response.status()).as(response.body()).isEqualTo(200);
        return IntStream.range(0, TIMES)
                .mapToLong(i -> {
                    long before = OneConnection.statementsOfRequests();
                    client.get(page);
                    return OneConnection.statementsOfRequests() - before;
                })
                .min()
                .orElseThrow();
    }
}
