package org.mossbank.server.grading.sent;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.UUID;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.testng.annotations.Test;

public class GradesInOrderTest {
    private static List<UUID> ids(int count, long seed) {
        Random random = new Random(seed);
        return random.longs(count).mapToObj(l -> new UUID(l, random.nextLong())).toList();
    }

    /** As the database would have put them, whose ids have no signs; written out they stand in the same order. */
    @Test
    public void byAnswerRaterAndCriterion() {
        List<SentGrade> expected = new ArrayList<>();
        for (UUID answer : ids(40, 1)) {
            for (UUID rater : ids(5, 2)) {
                for (UUID criterion : ids(3, 3)) {
                    int level = Math.floorMod(answer.hashCode() + rater.hashCode(), 5);
                    expected.add(new SentGrade(
                            new AccountId(rater), new AnswerId(answer), new CriterionId(criterion), level));
                }
            }
        }
        List<SentGrade> mixed = new ArrayList<>(expected);
        Collections.shuffle(mixed, new Random(4));
        GradesInOrder gathered = new GradesInOrder();
        mixed.forEach(g -> gathered.add(
                g.raterId().value(), g.answerId().value(), g.criterionId().value(), g.level()));
        expected.sort(Comparator.comparing((SentGrade g) -> g.answerId().toString())
                .thenComparing(g -> g.raterId().toString())
                .thenComparing(g -> g.criterionId().toString()));
        assertThat(gathered.snapshot()).isEqualTo(expected);
    }

    @Test
    public void ofMoreThanItHadRoomForAtFirst() {
        GradesInOrder gathered = new GradesInOrder();
        UUID rater = UUID.randomUUID();
        UUID criterion = UUID.randomUUID();
        ids(5_000, 6).forEach(answer -> gathered.add(rater, answer, criterion, 127));
        assertThat(gathered.snapshot())
                .hasSize(5_000)
                .allSatisfy(g -> assertThat(g.level()).isEqualTo(127));
    }

    @Test
    public void ofNone() {
        assertThat(new GradesInOrder().snapshot()).isEmpty();
    }
}
