package org.mossbank.server.trial;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.FileChangeView;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.StudyPeople;
import org.mossbank.server.trial.Repairs.RepairMade;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** A lead's repairs, and what a lead sees of everybody's. */
@Service
class RepairService {
    private final RepairRepository kept;
    private final Repairs repairs;
    private final CheckService.Texts texts;
    private final StudyPeople people;

    RepairService(RepairRepository kept, Repairs repairs, CheckService.Texts texts, StudyPeople people) {
        this.kept = kept;
        this.repairs = repairs;
        this.texts = texts;
        this.people = people;
    }

    /** Repairs of an answer by the check as it is now, oldest first. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(readOnly = true)
    public List<RepairView> ofAnswer(StudyId study, AnswerId answer) {
        requireAnswer(study, answer);
        List<RepairMade> made =
                kept.ofAnswers(List.of(answer)).stream().map(Repair::made).toList();
        Map<AccountId, AccountView> authors = people.of(
                study, made.stream().map(r -> r.by().authorId()).distinct().toList());
        return made.stream()
                .map(r -> RepairView.of(
                        r, Require.known(authors, r.by().authorId()).displayName()))
                .toList();
    }

    private void requireAnswer(StudyId study, AnswerId answer) {
        texts.answers().one(study, answer).orElseThrow(() -> Problem.notFound("This answer"));
    }

    /** The files of an answer's code that may be changed. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public List<RepairRequest.ChangedFile> files(StudyId study, AnswerId answer) {
        return RepairRequest.files(repairs.files(study, answer), UnaryOperator.identity());
    }

    /** @throws Problem 400 if nothing is another now; 409 if it cannot be tried */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public RepairResult make(StudyId study, AnswerId answer, RepairRequest request) {
        Repairs.RepairTried tried = repairs.make(study, answer, UnaryOperator.identity(), request.texts());
        AccountId author = tried.repair().by().authorId();
        String name = people.name(study, author);
        return new RepairResult(RepairView.of(tried.repair(), name), tried.result());
    }

    /** @throws Problem 404 if the answer has no such repair */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(readOnly = true)
    public TrialResult result(StudyId study, AnswerId answer, RepairId repair) {
        requireAnswer(study, answer);
        return repairs.one(answer, repair).result();
    }

    /** @throws Problem 404 if there is no such picture */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(readOnly = true)
    public byte[] picture(StudyId study, AnswerId answer, RepairId repair, int place) {
        requireAnswer(study, answer);
        return repairs.picture(answer, repair, place);
    }

    /** A repair, and what came of it item by item. */
    record RepairResult(RepairView repair, TrialResult result) {}

    /**
     * A repair as a lead sees it.
     *
     * @param author  as others read the name
     * @param lines   changed; one that was replaced counts once
     * @param changes file by file
     */
    record RepairView(
            RepairId id, String author, Instant at, int lines, List<FileChangeView> changes, TrialSummary summary) {
        static RepairView of(RepairMade made, String author) {
            return new RepairView(
                    made.id(),
                    author,
                    made.by().at(),
                    made.lines(),
                    made.changes().stream().map(FileChangeView::between).toList(),
                    made.summary());
        }
    }
}
