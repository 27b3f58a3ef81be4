package org.mossbank.server.memo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Base64;
import java.util.Map;
import java.util.UUID;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.server.shared.Sha256;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The link with which somebody without an account reads a signed memo, and nothing else. */
public class MemoLinkTest extends ServerTest {
    @Autowired
    private JdbcTemplate sql;

    @Autowired
    @Qualifier("requestMappingHandlerMapping")
    private RequestMappingHandlerMapping mappings;

    private String study;
    private String memo;

    @BeforeClass
    public void sign() {
        study = bringIn(SmallStudy.graded(SmallStudy.osier(1, 3)));
        recommendation(as(LEAD), study);
        String memos = "/api/studies/" + study + "/memos";
        JsonNode draft = as(LEAD).post(memos, Map.of("change", "")).json();
        assertThat(as(LEAD).post(memos + "/1/links", Map.of("days", 7)).problem())
                .as("nobody outside reads a draft")
                .isEqualTo("not-ready");
        as(LEAD).post(
                        memos + "/1/signature",
                        Map.of(
                                "version",
                                draft.path("version").asLong(),
                                "revision",
                                draft.at("/document/revision").asLong()));
        memo = memos + "/1";
    }

    private JsonNode made() {
        ApiClient.Response response = as(LEAD).post(memo + "/links", Map.of("days", 7));
        assertThat(response.status()).as(response.body()).isEqualTo(201);
        return response.json();
    }

    @Test
    public void whoeverHasItReadsTheMemo() {
        ApiClient.Response page = nobody().get(made().path("address").asString());
        assertThat(writtenDown(as(LEAD), memo.replace("/memos/1", "/audit-events")))
                .startsWith("MEMO_LINK_MADE");
        assertThat(page.status()).isEqualTo(200);
        assertThat(page.body()).contains("We recommend Teasel.").doesNotContain("Bram Okkers");
        assertThat(page.raw().headers().firstValue("X-Robots-Tag")).hasValue("noindex, nofollow");
        assertThat(page.raw().headers().firstValue("Cache-Control")).hasValue("no-store");
        assertThat(page.raw().headers().allValues("Content-Security-Policy"))
                .singleElement()
                .asString()
                .startsWith("default-src 'none'; style-src '" + hashOfTheStyle(page.body()) + "'; base-uri 'none'");
    }

    private static String hashOfTheStyle(String page) {
        String style = page.substring(page.indexOf("<style>") + "<style>".length(), page.indexOf("</style>"));
        return "sha256-" + Base64.getEncoder().encodeToString(Sha256.of(style));
    }

    /** Every address that gives something, as whoever has opened the link: its token opens nothing. */
    @Test
    public void itGivesNothingElse() {
        String address = made().path("address").asString();
        String token = address.substring(address.lastIndexOf('/') + 1);
        ApiClient outside = nobody();
        assertThat(outside.get(address).status()).isEqualTo(200);
        int asked = 0;
        for (var handler : mappings.getHandlerMethods().entrySet()) {
            for (String path : handler.getKey().getPatternValues()) {
                boolean read =
                        handler.getKey().getMethodsCondition().getMethods().contains(RequestMethod.GET);
                if (read && path.startsWith("/api/studies")) {
                    String filled = path.replace("{studyId}", study)
                            .replace("{number}", "1")
                            .replaceAll("\\{\\w+}", UUID.randomUUID().toString());
                    assertThat(outside.get(filled + "?token=" + token).status())
                            .as(path)
                            .isEqualTo(401);
                    asked++;
                }
            }
        }
        assertThat(asked).isGreaterThan(30);
    }

    @Test
    public void aWithdrawnOneOpensNothing() {
        JsonNode made = made();
        String link = memo + "/links/" + made.at("/link/id").asString();
        assertThat(as(LEAD).delete(link).status()).isEqualTo(204);
        assertThat(nobody().get(made.path("address").asString()).problem()).isEqualTo("link-used-or-expired");
        assertThat(as(LEAD).delete(memo + "/links/" + UUID.randomUUID()).problem())
                .isEqualTo("not-found");
    }

    @Test
    public void anExpiredOneOpensNothing() {
        JsonNode made = made();
        sql.update(
                "update memo_link set expires_at = now() - interval '1 minute' where id = ?",
                UUID.fromString(made.at("/link/id").asString()));
        assertThat(nobody().get(made.path("address").asString()).problem()).isEqualTo("link-used-or-expired");
    }

    @Test
    public void itsTokenIsKeptNowhere() {
        String address = made().path("address").asString();
        String token = address.substring(address.lastIndexOf('/') + 1);
        assertThat(as(LEAD).get(memo).body()).doesNotContain(token);
        assertThat(sql.queryForList("select encode(token_hash, 'escape') from memo_link", String.class))
                .noneMatch(h -> h.contains(token));
        assertThat(as(RATER).get(memo).json().path("links"))
                .as("leads alone know of them")
                .isEmpty();
    }
}
