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
        List<String> words = List.of("苔岸", "мох", "ξύ", "\uD801\uDC28\uD801\uDC29", "b2", "2b");
        Needles needles = new Needles(words);
        words.forEach(w -> assertThat(needles.in("x" + w + "x")).isEqualTo(Set.of(w)));
        assertThat(needles.in("")).isEmpty();
        assertThat(needles.in("b")).isEmpty();
    }

    /** Case, separators and what is not seen hide nothing. */
    @Test
    public void looksAtLettersAndDigitsAlone() {
        Needles needles = new Needles(List.of("quillwort", "мох"));
        assertThat(needles.in("Quill-**WORT**\u00AD")).containsExactly("quillwort");
        assertThat(needles.in("М\u200BОХ")).containsExactly("мох");
        assertThat(needles.in("quill")).isEmpty();
    }

    /** They are written over what was read. */
    @Test
    public void noLetterGrowsInLowerCase() {
        StringBuilder every = new StringBuilder();
        IntStream.rangeClosed(0, Character.MAX_CODE_POINT)
                .filter(c -> c < Character.MIN_SURROGATE || c > Character.MAX_SURROGATE)
                .forEach(every::appendCodePoint);
        String expected = every.codePoints()
                .filter(Character::isLetterOrDigit)
                .map(c -> Character.toLowerCase(Character.toUpperCase(c)))
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                .toString();
        assertThat(String.valueOf(Needles.letters(every)).equals(expected)).isTrue();
    }

    @Test
    public void refusesWhatWouldBeFoundEverywhere() {
        assertThatThrownBy(() -> new Needles(List.of("a"))).isInstanceOf(IllegalArgumentException.class);
    }
}
