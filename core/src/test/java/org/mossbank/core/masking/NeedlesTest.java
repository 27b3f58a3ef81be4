package org.mossbank.core.masking;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.Test;

/** Found in one pass is what a search for each word finds. */
public class NeedlesTest {
    private static String of(Random random, int length) {
        return IntStream.range(0, length)
                .mapToObj(i -> String.valueOf((char) ('a' + random.nextInt(3))))
                .collect(Collectors.joining());
    }

    @Test
    public void findsWhatIsThereAndNothingElse() {
        Random random = new Random(7);
        for (int round = 0; round < 200; round++) {
            List<String> words = IntStream.range(0, 30)
                    .mapToObj(i -> of(random, 2 + random.nextInt(6)))
                    .toList();
            String text = of(random, random.nextInt(40));
            assertThat(new Needles(words).in(text))
                    .as(text)
                    .isEqualTo(words.stream().filter(text::contains).collect(Collectors.toSet()));
        }
    }

    /** Beginnings that share a place are told apart. */
    @Test
    public void findsWordsOfManyScripts() {
        List<String> words = List.of("苔岸", "мох", "ξύ", "\uD801\uDC00\uD801\uDC01", "b2", "2b");
        Needles needles = new Needles(words);
        words.forEach(w -> assertThat(needles.in("x" + w + "x")).isEqualTo(Set.of(w)));
        assertThat(needles.in("")).isEmpty();
        assertThat(needles.in("b")).isEmpty();
    }

    @Test
    public void refusesWhatWouldBeFoundEverywhere() {
        assertThatThrownBy(() -> new Needles(List.of("a"))).isInstanceOf(IllegalArgumentException.class);
    }
}
