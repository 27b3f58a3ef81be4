package org.mossbank.server.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SecretsTest {
    private static final String SECRET = "heron under the \"jetty\" 7%";
    private static final Secrets SECRETS = new Secrets(
            Map.of("inner.service", SECRET, "OTHER", "another-one"),
            Map.of("inner.service", "models.example:8443, 127.0.0.1", "other", ""));

    private static String base64(String text) {
        return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    @DataProvider
    public Object[][] forms() {
        byte[] bytes = SECRET.getBytes(StandardCharsets.UTF_8);
        return new Object[][] {
            {"as it is", SECRET},
            {"spaced", String.join(" ", SECRET.split(""))},
            {"with lines between", String.join("\n", SECRET.split(""))},
            {"as JSON writes it", SECRET.replace("\"", "\\\"")},
            {"as JSON may write it", SECRET.replace("h", "\\u0068").replace("\"", "\\u0022")},
            {"as a form writes it", URLEncoder.encode(SECRET, StandardCharsets.UTF_8)},
            {
                "as an address writes it",
                URLEncoder.encode(SECRET, StandardCharsets.UTF_8).replace("+", "%20")
            },
            {"in base64", base64(SECRET)},
            {
                "in base64 for addresses, without its end",
                Base64.getUrlEncoder().withoutPadding().encodeToString(bytes)
            },
            {"in base64 behind one", base64("x" + SECRET)},
            {"in base64 behind two", base64("xy" + SECRET)},
            {"in base64 in the middle", base64("Bearer " + SECRET + " and so on")},
        };
    }

    @Test(dataProvider = "forms")
    public void aSecretIsHiddenInWhateverFormItComesBack(String what, String form) {
        String hidden = SECRETS.hide("You sent " + form + ", thank you.");
        assertThat(hidden)
                .as(what)
                .startsWith("You sent (secret)")
                .doesNotContain("jetty")
                .doesNotContain("aGVyb24");
    }

    @Test
    public void ordinaryTextStays() {
        String text = "A heron stood under the jetty; " + base64("nothing to hide in here at all") + " heron-under.";
        assertThat(SECRETS.hide(text)).isEqualTo(text);
    }

    /** What comes is kept as it comes; it may end within a secret. */
    @Test
    public void aTextThatStillComesDoesNotEndWithTheBeginningOfASecret() {
        assertThat(SECRETS.hideSoFar("It was heron under the \"je")).isEqualTo("It was (secret)");
        assertThat(SECRETS.hideSoFar("It was her")).isEqualTo("It was her");
    }

    @Test
    public void aSecretGoesToItsHostsAlone() {
        String header = "Bearer [[secret inner_service]]";
        assertThat(SECRETS.fill("https://models.example:8443/v1", header)).isEqualTo("Bearer " + SECRET);
        assertThat(SECRETS.fill("http://127.0.0.1:99/", header)).contains(SECRET);
        for (String elsewhere :
                new String[] {"https://models.example/v1", "https://evil.example:8443/", "http://10.0.0.1/"}) {
            assertThat(SECRETS.notFor(elsewhere, header)).contains("inner_service");
            assertThatThrownBy(() -> SECRETS.fill(elsewhere, header))
                    .isInstanceOf(IllegalStateException.class)
                    .hasMessageNotContaining(SECRET);
        }
        assertThat(SECRETS.notFor("http://127.0.0.1/", "[[secret OTHER]]"))
                .as("without hosts it goes nowhere")
                .contains("OTHER");
    }

    @Test
    public void aSecretThatIsTooShortToBeHiddenStopsTheStart() {
        assertThatThrownBy(() -> new Secrets(Map.of("short", "1234567"), Map.of()))
                .hasMessageContaining("MOSSBANK_SECRETS_SHORT")
                .hasMessageNotContaining("1234567");
    }

    @Test
    public void longTextsAreLookedThroughOnce() {
        for (String part : new String[] {"h", "heron under the ", "h ", base64("heron under the jett"), "%68"}) {
            String text = part.repeat((4 << 20) / part.length());
            assertThat(SECRETS.hide(text)).doesNotContain(SECRET);
        }
    }
}
