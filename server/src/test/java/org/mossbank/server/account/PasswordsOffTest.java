package org.mossbank.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.util.AopTestUtils;
import org.springframework.test.util.ReflectionTestUtils;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Where people come in by a provider alone. */
public class PasswordsOffTest extends ServerTest {
    @Autowired
    private SignInService signIns;

    private void takesPasswords(boolean takes) {
        SignInService target = AopTestUtils.getUltimateTargetObject(signIns);
        ReflectionTestUtils.setField(target, "takesPasswords", takes);
    }

    @BeforeMethod
    public void off() {
        as(RATER);
        takesPasswords(false);
    }

    @AfterMethod(alwaysRun = true)
    public void on() {
        takesPasswords(true);
    }

    @Test
    public void nobodyComesInChangesOrShowsAPassword() {
        ApiClient in = as(RATER);
        assertThat(nobody().post("/api/session", Map.of("name", RATER, "password", PASSWORD))
                        .problem())
                .isEqualTo("passwords-off");
        assertThat(in.put("/api/account/password", Map.of("current", PASSWORD, "password", "sedge and bulrush"))
                        .problem())
                .isEqualTo("passwords-off");
        assertThat(in.post("/api/account/proof", Map.of("password", PASSWORD)).problem())
                .isEqualTo("passwords-off");
        assertThat(in.get("/api/account").status()).as("whoever is in stays in").isEqualTo(200);
    }
}
