package org.mossbank.core.masking;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.function.IntFunction;
import org.mossbank.core.hostile.CountedText;
import org.mossbank.core.hostile.HostileTexts;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** However long a text is and whatever it holds, searching it reads each character a bounded number of times. */
public class HostileGiveAwaysTest {
    private static final GiveAways FINDER = GiveAways.of(new Terms(
            List.of("Quillwort", "Osier"), List.of("3.1-large", "v2.0.1"), List.of("Fenn Labs", "aaaa aaaa")));

    /** A search that starts anew at each character of a text of 4 MB would read each four million times. */
    private static final int MOST_READS_EACH = 700;

    @DataProvider
    public Object[][] texts() {
        return HostileTexts.all();
    }

    @Test(dataProvider = "texts")
    public void readsEachCharacterABoundedNumberOfTimes(String what, IntFunction<String> text) {
        CountedText counted = CountedText.of(text.apply(HostileTexts.LONGEST));

        FINDER.in(counted);

        assertThat(counted.readsEach()).as(what).isLessThan(MOST_READS_EACH);
    }

    @Test
    public void aTextThatHoldsTooMuchIsNotSearchedToItsEnd() {
        GiveAways.Found found = FINDER.in("Quillwort. ".repeat(GiveAways.MOST + 1));

        assertThat(found.complete()).isFalse();
        assertThat(found.all()).hasSize(GiveAways.MOST);
        assertThat(FINDER.in("Quillwort. ".repeat(GiveAways.MOST)).complete()).isTrue();
    }
}
