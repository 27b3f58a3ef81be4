package org.mossbank.server.answer;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.server.ids.StudyId;
import org.springframework.beans.factory.annotation.Autowired;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** What is told of answers without their texts is what reading the texts would tell. */
public class FactsOfAnswersTest extends ServerTest {
    @Autowired
    private Answers answers;

    @Autowired
    private FactsOfAnswers facts;

    private StudyId study;

    @BeforeClass
    public void begin() throws Exception {
        StudyInTheMaking made = StudyInTheMaking.ready(as(LEAD));
        study = StudyId.from(made.id());
        List<String> ids = answers.ofStudy(study).stream()
                .map(a -> a.id().toString())
                .limit(4)
                .toList();
        change("update answer set text = '' where id = '%s'".formatted(ids.get(0)));
        change("update answer set text = repeat(' ', 500) where id = '%s'".formatted(ids.get(1)));
        change("update answer set text = repeat(E'\\n', 500) || 'late', cost = 0.5, currency = 'EUR', total_ms = 12"
                .concat(" where id = '%s'".formatted(ids.get(2))));
        change("update answer set text = '' where id = '%s'".formatted(ids.get(3)));
        for (int place = 0; place < 2; place++) {
            change("insert into follow_up (answer_id, place, asked, reply) values ('%s', %d, 'Well %d?', '')"
                    .formatted(ids.get(3), place, place));
        }
    }

    private void change(String sql) throws Exception {
        try (var connection = DATABASE.connect();
                var statement = connection.createStatement()) {
            assertThat(statement.executeUpdate(sql)).isOne();
        }
    }

    @Test
    public void areWhatTheTextsTell() {
        List<AnswerView> whole = answers.ofStudy(study);
        Map<String, AnswerFacts> lean =
                facts.ofStudy(study).stream().collect(Collectors.toMap(AnswerFacts::key, Function.identity()));
        assertThat(lean).hasSameSizeAs(whole);
        for (AnswerView answer : whole) {
            assertThat(lean.get(answer.key()))
                    .isEqualTo(new AnswerFacts(
                            answer.id(),
                            answer.key(),
                            answer.promptId(),
                            answer.candidateId(),
                            answer.attempt(),
                            answer.outcome(),
                            answer.measures(),
                            answer.followUps().stream().map(FollowUp::asked).toList(),
                            answer.text().length()
                                    + answer.followUps().stream()
                                            .mapToInt(f -> f.asked().length()
                                                    + f.reply().length())
                                            .sum(),
                            answer.isWithoutText()));
        }
        assertThat(lean.values()).filteredOn(AnswerFacts::isWithoutText).hasSize(2);
    }

    @Test(dependsOnMethods = "areWhatTheTextsTell")
    public void countFollowUpsThatOthersDidNotGet() {
        AnswerFacts asked = facts.ofStudy(study).stream()
                .filter(a -> !a.asked().isEmpty())
                .findFirst()
                .orElseThrow();
        assertThat(asked.unequalFollowUps(List.of())).isEqualTo(2);
        assertThat(asked.unequalFollowUps(List.of(" Well 1?\n"))).isOne();
    }
}
