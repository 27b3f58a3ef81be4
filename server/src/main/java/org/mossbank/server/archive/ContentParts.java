package org.mossbank.server.archive;

import java.util.HashMap;
import java.util.Map;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.Rubrics;
import org.springframework.stereotype.Component;

/** What is asked, of whom, what came, and what it is graded on, on its way into the database. */
@Component
class ContentParts {
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final Specimens specimens;
    private final Rubrics rubrics;

    ContentParts(Prompts prompts, Candidates candidates, Answers answers, Specimens specimens, Rubrics rubrics) {
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.specimens = specimens;
        this.rubrics = rubrics;
    }

    /** Called within the transaction of whoever loads it. */
    NewIds add(StudyId study, ArchiveLoader.Weighed weighed, Map<String, AccountId> people) {
        StudyArchive archive = weighed.archive();
        Map<String, KindId> kinds = prompts.addKinds(study, archive.kinds());
        NewIds known = new NewIds(people, kinds, Map.of(), Map.of(), Map.of(), Map.of(), Map.of());
        Map<String, PromptId> promptIds = prompts.addPrompts(
                study, archive.prompts().stream().map(p -> p.kept(known)).toList(), kinds);
        Map<String, CandidateId> candidateIds = candidates.add(
                study, archive.candidates().stream().map(c -> c.kept(known)).toList());
        answers.requireRoom(
                study,
                archive.answers().size() + archive.specimens().size(),
                archive.answers().stream()
                                .mapToLong(a -> a.wholeText().length())
                                .sum()
                        + archive.specimens().stream()
                                .mapToLong(s -> s.text().length())
                                .sum());
        Map<String, AnswerId> answerIds =
                new HashMap<>(answers.add(study, archive.answers(), promptIds, candidateIds, weighed.changed()));
        answerIds.putAll(specimens.add(study, archive.specimens(), promptIds));
        Map<Integer, Map<String, CriterionId>> versions = new HashMap<>();
        archive.history().forEach(v -> versions.put(v.head().version(), rubrics.add(study, v.kept(false, known))));
        Map<String, CriterionId> criterionIds =
                rubrics.add(study, archive.rubric().kept(!archive.head().preparing(), known));
        versions.put(archive.rubric().head().version(), criterionIds);
        return new NewIds(people, kinds, promptIds, candidateIds, answerIds, criterionIds, versions);
    }
}
