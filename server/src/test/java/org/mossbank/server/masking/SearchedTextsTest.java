package org.mossbank.server.masking;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.mossbank.core.masking.GiveAways;
import org.mossbank.core.masking.Terms;
import org.mossbank.server.ServerTest;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** A server that starts anew does not search again what was searched as it is. */
public class SearchedTextsTest extends ServerTest {
    private static final Terms TERMS = new Terms(List.of("Quillwort"), List.of(), List.of());
    private static final FactsOfAnswers.Whole NAMING = answer("Quillwort wrote this.");
    private static final FactsOfAnswers.Whole PLAIN = answer("Nobody is named.");

    @Autowired
    private KeptFigures kept;

    @Autowired
    private MaskingService.SearchedAhead ahead;

    @Autowired
    private JdbcTemplate sql;

    private StudyId study;

    private static FactsOfAnswers.Whole answer(String text) {
        return new FactsOfAnswers.Whole(AnswerId.random(), "a", PromptId.random(), CandidateId.random(), 1, 3, text);
    }

    private static FactsOfAnswers.Head head(FactsOfAnswers.Whole answer) {
        return new FactsOfAnswers.Head(answer.id(), answer.promptId(), answer.version());
    }

    @BeforeClass
    public void begin() {
        study = new StudyId(UUID.fromString(bringIn()));
    }

    /** What a server searches that was started a moment ago. */
    private List<AnswerId> searchedBy(SearchedTexts server, Terms terms, FactsOfAnswers.Whole... answers) {
        List<FactsOfAnswers.Head> heads =
                List.of(answers).stream().map(SearchedTextsTest::head).toList();
        List<AnswerId> searched = new ArrayList<>();
        server.know(study, heads, terms, () -> {
            for (FactsOfAnswers.Whole answer : answers) {
                server.in(answer, terms, GiveAways.of(terms));
                searched.add(answer.id());
            }
        });
        return searched;
    }

    @Test
    public void whatIsAsItWasIsNotSearchedAgain() {
        assertThat(searchedBy(new SearchedTexts(kept), TERMS, NAMING, PLAIN)).hasSize(2);

        SearchedTexts anew = new SearchedTexts(kept);
        assertThat(searchedBy(anew, TERMS, NAMING, PLAIN)).isEmpty();
        assertThat(anew.isKnownToHoldNothing(head(PLAIN), TERMS)).isTrue();
        assertThat(anew.isKnownToHoldNothing(head(NAMING), TERMS)).isFalse();
    }

    @Test
    public void aStudyThatCameInIsSearchedBeforeSomebodyAsks() {
        StudyId another = new StudyId(UUID.fromString(bringIn()));
        ahead.workOut(another);
        assertThat(sql.queryForObject(
                        "select figures from kept_figure where study_id = ? and sort = 'masking'",
                        String.class,
                        another.value()))
                .contains("answers");
    }

    @Test
    public void whatIsNotAsItWasIsSearched() {
        searchedBy(new SearchedTexts(kept), TERMS, NAMING, PLAIN);
        Terms more = new Terms(List.of("Quillwort", "Nobody"), List.of(), List.of());
        SearchedTexts others = new SearchedTexts(kept);
        assertThat(searchedBy(others, more, NAMING, PLAIN)).hasSize(2);
        assertThat(others.isKnownToHoldNothing(head(PLAIN), more)).isFalse();

        FactsOfAnswers.Whole rewritten = new FactsOfAnswers.Whole(
                PLAIN.id(), "a", PLAIN.promptId(), PLAIN.candidateId(), 1, 4, "Now Quillwort is.");
        SearchedTexts later = new SearchedTexts(kept);
        assertThat(searchedBy(later, TERMS, NAMING, rewritten)).hasSize(2);
        assertThat(later.isKnownToHoldNothing(head(rewritten), TERMS)).isFalse();
        assertThat(searchedBy(new SearchedTexts(kept), TERMS, NAMING)).hasSize(1);
    }
}
