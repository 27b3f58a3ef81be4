package org.mossbank.server.memo.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.ids.AccountId;
import org.testng.annotations.Test;

/** How a memo calls people. */
public class MemoNamesTest {
    private static Map<AccountId, AccountView> people(String... names) {
        Map<AccountId, AccountView> all = new LinkedHashMap<>();
        for (String name : names) {
            AccountId id = AccountId.random();
            all.put(
                    id,
                    new AccountView(id, name.toLowerCase(java.util.Locale.ROOT), name, false, true, true, false, true));
        }
        return all;
    }

    @Test
    public void aNameIsReplacedWhereverItStandsAsAWord() {
        Map<AccountId, AccountView> raters = people("Al", "Al Fern", "Åsa");
        MemoNames names = MemoNames.of(NamesShown.NOT_AT_ALL, raters, List.of("Orla Fennick"));
        assertThat(names.in("Also Al Fern’s sheet; Åsa, and Al. Orla Fennick closed it."))
                .isEqualTo("Also a rater’s sheet; a rater, and a rater. the lead closed it.");
    }

    @Test
    public void lettersAreOnePersonsThroughout() {
        Map<AccountId, AccountView> raters = people("Bram", "Juri");
        MemoNames names = MemoNames.of(NamesShown.PSEUDONYM, raters, List.of());
        raters.forEach((id, who) -> assertThat(names.in("It hangs on " + who.displayName() + "."))
                .isEqualTo("It hangs on " + names.of(id) + "."));
        assertThat(raters.keySet().stream().map(names::of)).containsExactlyInAnyOrder("Rater A", "Rater B");
    }

    @Test
    public void lettersGoOnAfterTheLast() {
        String[] many = new String[28];
        for (int i = 0; i < many.length; i++) {
            many[i] = "Person " + i;
        }
        Map<AccountId, AccountView> raters = people(many);
        MemoNames names = MemoNames.of(NamesShown.PSEUDONYM, raters, List.of());
        assertThat(raters.keySet().stream().map(names::of))
                .contains("Rater Z", "Rater AA", "Rater AB")
                .doesNotHaveDuplicates();
    }

    @Test
    public void nothingIsReplacedWhereNamesStand() {
        MemoNames names = MemoNames.of(NamesShown.BY_NAME, people("Bram"), List.of("Orla"));
        assertThat(names.in("Bram and Orla")).isEqualTo("Bram and Orla");
    }

    /** Names are somebody's words: none of them is a pattern. */
    @Test
    public void aNameIsNoPattern() {
        MemoNames names = MemoNames.of(NamesShown.NOT_AT_ALL, people("(.*", "$1\\"), List.of());
        assertThat(names.in("By (.* and Bram")).isEqualTo("By a rater and Bram");
    }
}
