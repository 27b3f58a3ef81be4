package org.mossbank.server.turn;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.turns.TurnVerdict;
import org.mossbank.server.account.Actor;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.figures.FiguresOf;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Saying whether replies do what was asked, and what came of it. */
@Service
class TurnService {
    private static final FiguresOf<WorkReport> WORK = new FiguresOf<>("work", WorkReport.class);

    private final TurnSaidRepository said;
    private final WorkComputation computation;
    private final Recommendations recommendations;
    private final Grading grading;
    private final Studies studies;
    private final Answers answers;
    private final KeptFigures kept;
    private final Writing writing;

    TurnService(
            TurnSaidRepository said,
            WorkComputation computation,
            Recommendations recommendations,
            Grading grading,
            Studies studies,
            Answers answers,
            KeptFigures kept,
            Writing writing) {
        this.said = said;
        this.computation = computation;
        this.recommendations = recommendations;
        this.grading = grading;
        this.studies = studies;
        this.answers = answers;
        this.kept = kept;
        this.writing = writing;
    }

    /** Who writes, and where it is kept. */
    @Component
    record Writing(EntityManager entities, Actor actor) {}

    /** @param verdict absent to take back what was said */
    record SayOfTurn(@Nullable TurnVerdict verdict) {}

    /** By answer and turn. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(readOnly = true)
    public List<Turns.Said> ofStudy(StudyId study) {
        return said.ofStudy(study).stream().map(TurnSaid::view).toList();
    }

    /**
     * Says of a reply whether it does what was asked. While the study is prepared: what raters say of it afterwards is theirs.
     *
     * @throws Problem 404 if the answer has no such reply; 409 once the round was opened
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public List<Turns.Said> say(StudyId study, AnswerId id, int turn, SayOfTurn request) {
        studies.requirePreparing(study);
        AnswerView answer = answers.one(study, id).orElseThrow(() -> Problem.notFound("This answer"));
        if (turn < 0 || turn > answer.followUps().size()) {
            throw Problem.notFound("This reply");
        }
        Optional<TurnSaid> before = said.findById(new TurnSaid.Key(id, turn));
        TurnVerdict verdict = request.verdict();
        if (verdict == null) {
            before.ifPresent(said::delete);
        } else if (before.isPresent()) {
            before.get().say(verdict, writing.actor.now(), writing.actor.name());
        } else {
            Turns.Said now = new Turns.Said(id, turn, verdict, writing.actor.now(), writing.actor.name());
            writing.entities.persist(TurnSaid.of(study, now, Turns.digest(answer, turn)));
        }
        writing.entities.flush();
        return said.ofAnswer(id).stream().map(TurnSaid::view).toList();
    }

    /** @throws Problem 409 before grading has ended */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public WorkReport work(StudyId study) {
        recommendations.requireEnded(study);
        long revision = grading.round(study).orElseThrow().revision();
        return kept.of(WORK, study, revision, () -> computation.of(study));
    }
}
