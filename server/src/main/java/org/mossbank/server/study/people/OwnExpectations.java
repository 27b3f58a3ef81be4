package org.mossbank.server.study.people;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.AnswersSeen;
import org.mossbank.server.study.Declared;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What people expect of a study before they see anything. */
@Service
@Transactional(readOnly = true)
public class OwnExpectations {
    private final Studies studies;
    private final ExpectationRepository expectations;
    private final CurrentAccount current;
    private final List<AnswersSeen> seen;
    private final Moment moment;

    OwnExpectations(
            Studies studies,
            ExpectationRepository expectations,
            CurrentAccount current,
            List<AnswersSeen> seen,
            Moment moment) {
        this.studies = studies;
        this.expectations = expectations;
        this.current = current;
        this.seen = seen;
        this.moment = moment;
    }

    /**
     * One's own expectation.
     *
     * @param asked     whether this study asks for it
     * @param declared  whether it was given
     * @param open      whether it can still be given or changed; once it cannot, its words are left out until they
     *                  stand with the recommendation: they may name a candidate to whoever grades
     */
    record OwnExpectation(boolean asked, boolean declared, boolean open, String expects, String usesToday) {}

    @PreAuthorize("@studyAccess.mayEnter(#study)")
    public OwnExpectation expectation(StudyId study) {
        Membership.Key key = new Membership.Key(study, current.id());
        var known = expectations.findById(key).map(Expectation::view);
        boolean open = isOpen(study, known.isPresent());
        var shown = known.filter(k -> open);
        return new OwnExpectation(
                isAsked(study),
                known.isPresent(),
                open,
                shown.map(Declared::expects).orElse(""),
                shown.map(Declared::usesToday).orElse(""));
    }

    /**
     * Where it is asked for: until the round opens, it may be changed; after that, only given once, before the first sheet. A
     * lead reads answers as they come in, and then it is too late.
     */
    private boolean isOpen(StudyId study, boolean declared) {
        if (!isAsked(study)) {
            return false;
        }
        boolean leads = studies.members(study).get(current.id()) == Role.LEAD;
        if (leads && seen.stream().anyMatch(s -> s.isAnythingSeen(study))) {
            return false;
        }
        return switch (studies.stage(study)) {
            case PREPARING -> !declared || !studies.get(study).isBriefClosed();
            case GRADING -> !declared;
            case CLOSED -> false;
        };
    }

    /** Readers are not: nothing hangs on what they expect. */
    private boolean isAsked(StudyId study) {
        return studies.get(study).brief().asksExpectations()
                && studies.members(study).get(current.id()) != Role.READER;
    }

    public record Declare(
            @NotNull @Size(max = 300) String expects,
            @NotNull @Size(max = 300) String usesToday) {}

    /** @throws Problem 409 if it is too late: something may have been seen since */
    @PreAuthorize("@studyAccess.mayEnter(#study)")
    @Transactional
    public OwnExpectation declare(StudyId study, Declare request) {
        Membership.Key key = new Membership.Key(study, current.id());
        boolean declared = expectations.existsById(key);
        if (!isOpen(study, declared)) {
            throw new Problem(
                    ProblemType.TOO_LATE,
                    "What you expect counts only from before anything was seen. It stays as it is.");
        }
        Expectation expectation = expectations.findById(key).orElseGet(() -> Expectation.of(key));
        expectation.declare(
                request.expects().strip(),
                request.usesToday().strip(),
                moment.clock().instant());
        expectations.saveAndFlush(expectation);
        return expectation(study);
    }
}
