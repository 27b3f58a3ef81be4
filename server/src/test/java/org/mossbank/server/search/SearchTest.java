package org.mossbank.server.search;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

public class SearchTest extends ServerTest {
    @Autowired
    private JdbcTemplate sql;

    private String study = "";

    @BeforeClass
    public void write() {
        study = bringIn();
        UUID id = UUID.fromString(study);
        sql.update(
                "update prompt set request = 'Where is the bittern counted twice?' where study_id = ? and place = 0",
                id);
        sql.update(
                "update answer set text = 'The loop counts each bittern twice. ' || repeat('Reeds stand. ', 400)"
                        + " || 'It calls count_all_birds(reed), a List<Mudflat>, at the end.' where study_id = ? and id = (select min(id::text)::uuid from"
                        + " answer where study_id = ?)",
                id,
                id);
        sql.update(
                "update sheet_answer set reason = 'It misses the bittern <b>entirely</b>.' where id = (select min(a.id::text)::uuid"
                        + " from sheet_answer a join sheet s on s.id = a.sheet_id where s.study_id = ?)",
                id);
    }

    private JsonNode found(ApiClient who, String words) {
        String asked = URLEncoder.encode(words, StandardCharsets.UTF_8);
        ApiClient.Response response = who.get("/api/studies/" + study + "/search?words=" + asked);
        assertThat(response.status()).as(response.body()).isEqualTo(200);
        return response.json();
    }

    private List<String> sorts(String words) {
        return found(as(LEAD), words).path("finds").values().stream()
                .map(f -> f.path("sort").asString())
                .toList();
    }

    @Test
    public void findsPromptsAnswersAndWhatRatersSaidAndSaysWhere() {
        JsonNode finds = found(as(LEAD), "bittern").path("finds");
        assertThat(finds.values().stream().map(f -> f.path("sort").asString()))
                .containsExactly("PROMPT", "ANSWER", "REASON");
        JsonNode answer = finds.get(1);
        assertThat(answer.path("candidate").asString()).isNotEmpty();
        assertThat(answer.path("answerId").asString()).isNotEmpty();
        assertThat(answer.path("pieces").values().stream()
                        .filter(p -> p.path("found").asBoolean())
                        .map(p -> p.path("text").asString()))
                .contains("bittern");
        assertThat(finds.get(2).path("pieces").toString())
                .as("told as text, whatever it looks like")
                .contains("<b>entirely");
    }

    @DataProvider
    public static Object[][] ways() {
        return new Object[][] {
            {"all words must be there", "bittern loop", 1},
            {"in whatever letters", "BITTERN", 3},
            {"one after the other in quotes", "\"bittern twice\"", 1},
            {"either", "loop or entirely", 2},
            {"not with one", "bittern -loop", 2},
            {"part of a name of code", "birds", 1},
            {"nowhere", "heron", 0},
            {"in angles", "entirely", 1},
            {"between angles of code", "mudflat", 1},
            {"signs alone", "&|!:*<->", 0},
        };
    }

    @Test(dataProvider = "ways")
    public void takesWordsAsPeopleWriteThem(String what, String words, int finds) {
        assertThat(sorts(words)).as(what).hasSize(finds);
    }

    @Test
    public void findsNothingOfAnotherStudyAndNothingThatWasWithdrawn() {
        String other = bringIn();
        assertThat(as(LEAD).get("/api/studies/" + other + "/search?words=bittern")
                        .json()
                        .path("finds")
                        .size())
                .isZero();
        sql.update(
                "update sheet set withdrawn_at = now(), withdrawn_reason = 'Not theirs.' where study_id = ?",
                UUID.fromString(study));
        assertThat(sorts("entirely")).isEmpty();
        sql.update(
                "update sheet set withdrawn_at = null, withdrawn_reason = null where study_id = ?",
                UUID.fromString(study));
    }

    /** A rater who grades must not find what others say, or whose an answer is. */
    @Test
    public void isForWhoMaySeeAll() {
        String path = "/api/studies/" + study + "/search?words=bittern";
        assertThat(as(RATER).get(path).status()).isEqualTo(403);
        assertThat(as(OUTSIDER).get(path).status()).isEqualTo(404);
    }

    @Test
    public void aTextThatIsLongerThanAnIndexTakesIsKeptAndFoundByItsBeginning() {
        String own = bringIn();
        int changed = sql.update(
                "update answer set text = 'godwit ' || (select string_agg(md5(n::text), ' ') from generate_series(1, 60000) n)"
                        + " where study_id = ? and id = (select min(id::text)::uuid from answer where study_id = ?)",
                UUID.fromString(own),
                UUID.fromString(own));
        assertThat(changed).isEqualTo(1);
        assertThat(as(LEAD).get("/api/studies/" + own + "/search?words=godwit")
                        .json()
                        .path("finds")
                        .size())
                .isEqualTo(1);
    }

    @Test
    public void comesInPages() {
        String own = bringIn();
        UUID id = UUID.fromString(own);
        sql.update(
                "insert into prompt (id, study_id, key, kind_id, title, language, request, place, areas, size, constraints,"
                        + " follow_ups, reference_answer, repository, commit_id, version, wording)"
                        + " select gen_random_uuid(), p.study_id, 'more' || n, p.kind_id, 'Curlew ' || n, p.language, 'curlew', 100 + n,"
                        + " p.areas, p.size, p.constraints, p.follow_ups, p.reference_answer, p.repository, p.commit_id, 0, p.wording"
                        + " from prompt p, generate_series(1, 60) n where p.study_id = ? and p.place = 0",
                id);
        String path = "/api/studies/" + own + "/search?words=curlew";
        JsonNode first = as(LEAD).get(path).json();
        JsonNode second =
                as(LEAD).get(path + "&from=" + first.path("next").asInt()).json();
        assertThat(first.path("finds").size()).isEqualTo(50);
        assertThat(second.path("finds").size()).isEqualTo(10);
        assertThat(second.has("next")).isFalse();
        assertThat(as(LEAD).get("/api/studies/" + own + "/search?words=").status())
                .isEqualTo(400);
    }
}
