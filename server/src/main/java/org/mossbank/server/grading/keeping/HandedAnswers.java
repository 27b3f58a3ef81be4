package org.mossbank.server.grading.keeping;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Which answers somebody gets who takes a sheet over. Called within the transaction of whoever hands it over. */
@Component
class HandedAnswers {
    private final SheetAnswerRepository sheetAnswers;
    private final Studies studies;
    private final Answers answers;
    private final Candidates candidates;

    HandedAnswers(SheetAnswerRepository sheetAnswers, Studies studies, Answers answers, Candidates candidates) {
        this.sheetAnswers = sheetAnswers;
        this.studies = studies;
        this.answers = answers;
        this.candidates = candidates;
    }

    /** Without the rater's own; shuffled by the study's seed and the sheet, so that it can be told again. */
    List<AnswerId> of(Sheet sheet, AccountId rater) {
        return of(sheet, rater, sheet.id());
    }

    /** The same as on one sheet, in the order of another. */
    List<AnswerId> of(Sheet sheet, AccountId rater, SheetId order) {
        List<CandidateId> own = candidates.ofStudy(sheet.studyId()).stream()
                .filter(c -> rater.equals(c.content().personId()))
                .map(CandidateView::id)
                .toList();
        List<AnswerId> all = sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id())).stream()
                .map(SheetAnswer::answerId)
                .toList();
        Map<AnswerId, Answers.Cell> byId = answers.cells(all);
        List<AnswerId> onSheet = new ArrayList<>(all.stream()
                .filter(id -> !own.contains(Require.known(byId, id).candidateId()))
                .sorted()
                .toList());
        long seed = studies.get(sheet.studyId()).seed() ^ order.value().getLeastSignificantBits();
        Collections.shuffle(onSheet, new Random(seed));
        return onSheet;
    }
}
