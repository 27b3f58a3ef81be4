package org.mossbank.server.answer;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.mossbank.core.change.AnswerCode;
import org.mossbank.server.answer.specimen.SpecimenView;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Answers, for whoever may read all of them. */
@Service
@Transactional(readOnly = true)
class AnswerReading {
    private final AnswerRepository answers;
    private final Specimens specimens;
    private final Prompts prompts;
    private final AnswerCodes codes;
    private final Snapshot snapshot;

    AnswerReading(
            AnswerRepository answers, Specimens specimens, Prompts prompts, AnswerCodes codes, Snapshot snapshot) {
        this.answers = answers;
        this.specimens = specimens;
        this.prompts = prompts;
        this.codes = codes;
        this.snapshot = snapshot;
    }

    /** All answers, without their texts. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public List<AnswerSummary> ofStudy(StudyId study) {
        Map<AnswerId, List<String>> asked = answers.asked(study).stream()
                .collect(Collectors.groupingBy(
                        AnswerRepository.Asked::answer,
                        Collectors.mapping(AnswerRepository.Asked::asked, Collectors.toList())));
        Map<PromptId, List<String>> prepared = new HashMap<>();
        if (!asked.isEmpty()) {
            prompts.ofStudy(study).forEach(p -> prepared.put(p.id(), p.content().followUps()));
        }
        return answers.inGrid(study).stream()
                .map(a -> AnswerSummary.of(
                        a, asked.getOrDefault(a.id(), List.of()), prepared.getOrDefault(a.promptId(), List.of())))
                .toList();
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public List<AnswerView> ofPrompt(StudyId study, PromptId prompt) {
        return answers.ofPrompt(study, prompt).stream().map(Answer::view).toList();
    }

    /** Answers that prompts brought out of the bank, by key. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public List<SpecimenView> specimens(StudyId study) {
        return specimens.ofStudy(study);
    }

    /**
     * What an answer changes in the starting code, file by file.
     *
     * @param limits why something is not told, in sentences
     */
    record ChangesOfAnswer(List<FileChangeView> changes, List<String> limits) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public ChangesOfAnswer changes(StudyId study, AnswerId id) {
        AnswerView answer = snapshot.of(() ->
                answers.ofStudyById(study, id).map(Answer::view).orElseThrow(() -> Problem.notFound("This answer")));
        AnswerCode code =
                codes.of(prompts.one(study, answer.promptId()).orElseThrow().startingCode(), answer.wholeText());
        return new ChangesOfAnswer(
                code.changes().stream().map(FileChangeView::of).toList(), code.limits());
    }
}
