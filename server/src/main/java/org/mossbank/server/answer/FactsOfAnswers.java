package org.mossbank.server.answer;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Answers without their texts, for what is done over a whole study: thousands of texts take longer to read than to count. Texts of
 * those alone that are found to matter.
 */
@Service
@Transactional(readOnly = true)
public class FactsOfAnswers {
    /** Answers that are named one by one. */
    private static final int FEW = 500;

    private final AnswerRepository answers;

    FactsOfAnswers(AnswerRepository answers) {
        this.answers = answers;
    }

    /** All of a study, by key. */
    @SystemOnly
    public List<AnswerFacts> ofStudy(StudyId study) {
        List<AnswerRepository.Lean> rows = answers.lean(study);
        // A text may begin with a screenful of nothing and go on.
        Set<AnswerId> blank = Chunks.of(
                        rows.stream()
                                .filter(AnswerRepository.Lean::isPerhapsBlank)
                                .map(AnswerRepository.Lean::id)
                                .toList(),
                        answers::findAllById)
                .stream()
                .map(Answer::view)
                .filter(AnswerView::isWithoutText)
                .map(AnswerView::id)
                .collect(Collectors.toSet());
        Map<AnswerId, List<String>> asked = answers.asked(study).stream()
                .collect(Collectors.groupingBy(
                        AnswerRepository.Asked::answer,
                        Collectors.mapping(AnswerRepository.Asked::asked, Collectors.toList())));
        return rows.stream()
                .map(r -> r.facts(asked.getOrDefault(r.id(), List.of()), blank.contains(r.id())))
                .toList();
    }

    /** Which version of an answer there is. */
    public record Head(AnswerId id, PromptId promptId, long version) {}

    /** Of all answers of a study, by key, without their texts. */
    @SystemOnly
    public List<Head> heads(StudyId study) {
        return answers.heads(study);
    }

    /**
     * An answer as it is read from top to bottom, and no more of it than one needs to search it.
     *
     * @param text as {@link AnswerView#wholeText()}
     */
    public record Whole(
            AnswerId id,
            String key,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            long version,
            String text) {
        /** @param turns what came after the text, which is the first reply */
        private Whole with(List<FollowUp> turns) {
            return new Whole(id, key, promptId, candidateId, attempt, version, WholeText.of(text, turns));
        }
    }

    /** All of a study with their texts, by key. */
    @SystemOnly
    public List<Whole> wholes(StudyId study) {
        return whole(study, answers.firstReplies(study));
    }

    /** Some answers of a study with their texts, by key. */
    @SystemOnly
    public List<Whole> wholes(StudyId study, Set<AnswerId> ids) {
        if (ids.isEmpty()) {
            return List.of();
        }
        // A study's are read in a quarter of the time that as many named one by one take.
        return ids.size() > FEW
                ? wholes(study).stream().filter(a -> ids.contains(a.id)).toList()
                : whole(study, answers.firstReplies(study, ids));
    }

    private List<Whole> whole(StudyId study, List<Whole> firstReplies) {
        Map<AnswerId, List<FollowUp>> turns = answers.turns(study).stream()
                .collect(Collectors.groupingBy(
                        AnswerRepository.Turn::answer,
                        Collectors.mapping(t -> new FollowUp(t.asked(), t.reply()), Collectors.toList())));
        return firstReplies.stream()
                .map(a -> a.with(turns.getOrDefault(a.id, List.of())))
                .toList();
    }
}
