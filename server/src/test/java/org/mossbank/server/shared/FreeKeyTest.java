package org.mossbank.server.shared;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Set;
import org.testng.annotations.Test;

public class FreeKeyTest {
    @Test
    public void aKeyThatWasMadeOfANameFollowsIt() {
        assertThat(FreeKey.following("prompt", "", "Why is it late?", "prompt", Set.of()))
                .isEqualTo("why-is-it-late");
        assertThat(FreeKey.following("prompt-2", "", "Why is it late?", "prompt", Set.of("prompt", "why-is-it-late")))
                .isEqualTo("why-is-it-late-2");
    }

    @Test
    public void oneThatSomebodyGaveStays() {
        assertThat(FreeKey.following("lost-berth", "Why is berth 4 never free?", "Other", "prompt", Set.of()))
                .isEqualTo("lost-berth");
    }
}
