package org.mossbank.server.calibration;

import jakarta.persistence.EntityManager;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Actor;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.StudyAccess;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The talk about what raters gave while they calibrated. */
@Service
@Transactional
class CalibrationTalk {
    /** The most that is said in one calibration. */
    static final int MOST_WORDS = 2000;

    private final CalibrationReader reader;
    private final CalibrationPages pages;
    private final CalibrationWordRepository words;
    private final AgreedLevelRepository levels;
    private final Masking masking;
    private final StudyAccess access;
    private final Actor actor;
    private final EntityManager entities;

    CalibrationTalk(
            CalibrationReader reader,
            CalibrationPages pages,
            CalibrationWordRepository words,
            AgreedLevelRepository levels,
            Masking masking,
            StudyAccess access,
            Actor actor,
            EntityManager entities) {
        this.reader = reader;
        this.pages = pages;
        this.words = words;
        this.levels = levels;
        this.masking = masking;
        this.access = access;
        this.actor = actor;
        this.entities = entities;
    }

    /** @throws Problem 404 if there is no such answer, or whoever asks may not compare yet */
    @PreAuthorize("@studyAccess.mayEnter(#study)")
    @Transactional(readOnly = true)
    public CalibrationViews.AnswerTalk answer(StudyId study, int number, int place) {
        return answer(reader.opened(study, number, actor.id()), place);
    }

    private CalibrationViews.AnswerTalk answer(CalibrationBasis basis, int place) {
        StudyId study = basis.calibration().key().studyId();
        UnaryOperator<String> spoken = access.maySeeAll(study) ? UnaryOperator.identity() : masking.said(study);
        return pages.answer(
                basis,
                basis.shown(place),
                new CalibrationPages.Reader(actor.id(), reader.leads(study), spoken),
                reader.isTalking(
                        basis.calibration(), reader.sheets(basis.calibration().key())));
    }

    /**
     * Says something of an answer, of a criterion, of lines; the same id again says nothing more.
     *
     * @throws Problem 409 while it is graded again, once the round is closed, or if too much was said
     */
    @PreAuthorize("@studyAccess.mayEnter(#study)")
    public CalibrationViews.AnswerTalk say(
            StudyId study, int number, int place, CalibrationRequests.SayOfAnswer request) {
        CalibrationBasis basis = reader.opened(study, number, actor.id());
        CalibrationBasis.Shown shown = basis.shown(place);
        if (words.existsById(request.id())) {
            return answer(basis, place);
        }
        requireTalking(basis.calibration());
        if (words.countByStudyIdAndNumber(study, number) >= MOST_WORDS) {
            throw new Problem(ProblemType.TOO_LATE, "Nobody reads more than %d words here.".formatted(MOST_WORDS));
        }
        CriterionView criterion = request.criterion() == null ? null : criterion(basis, shown, request.criterion());
        entities.persist(CalibrationWord.of(
                request.id(),
                basis.calibration().key(),
                new Calibrations.Word(
                        shown.id(),
                        criterion == null ? null : criterion.id(),
                        lines(request.lines(), shown),
                        actor.id(),
                        request.words().strip(),
                        actor.now(),
                        access.knowsNames(study))));
        entities.flush();
        return answer(basis, place);
    }

    private void requireTalking(Calibration calibration) {
        if (!reader.isTalking(calibration, reader.sheets(calibration.key()))) {
            throw new Problem(
                    ProblemType.NOT_READY, "Nothing is said while it is graded again, nor once the round is closed.");
        }
    }

    private static CriterionView criterion(CalibrationBasis basis, CalibrationBasis.Shown shown, String key) {
        return basis.criteriaFor(shown.prompt()).stream()
                .filter(c -> c.key().equals(key))
                .findFirst()
                .orElseThrow(() -> Problem.invalid("criterion", "must be one that this answer is graded on"));
    }

    private Calibrations.@Nullable AtLines lines(
            CalibrationRequests.@Nullable SaidLines lines, CalibrationBasis.Shown shown) {
        if (lines == null) {
            return null;
        }
        long last = pages.text(shown).lines().count();
        if (lines.to() < lines.from() || lines.to() > last) {
            throw Problem.invalid("lines", "must be lines of the answer, which has %d".formatted(last));
        }
        return new Calibrations.AtLines(lines.from(), lines.to());
    }

    /** Says at which level an answer should stand: as the talk came to, or as people who know said beforehand. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public CalibrationViews.AnswerTalk agree(
            StudyId study,
            int number,
            int place,
            String criterion,
            Calibrations.Source source,
            CalibrationRequests.Agree request) {
        CalibrationBasis basis = openedToSettle(study, number, source);
        CalibrationBasis.Shown shown = basis.shown(place);
        CriterionView on = criterion(basis, shown, criterion);
        if (request.level() > on.highestLevel()) {
            throw Problem.invalid("level", "must be at most " + on.highestLevel());
        }
        Calibrations.Agreed agreed = new Calibrations.Agreed(
                shown.id(), on.id(), source, request.level(), request.reason().strip(), actor.name(), actor.now());
        levels.findById(key(basis, agreed))
                .ifPresentOrElse(
                        known -> known.say(agreed),
                        () -> entities.persist(
                                AgreedLevel.of(basis.calibration().key(), agreed)));
        entities.flush();
        return answer(reader.opened(study, number, actor.id()), place);
    }

    /** A reference is best noted before anybody sees what was given; what is settled comes out of the talk. */
    private CalibrationBasis openedToSettle(StudyId study, int number, Calibrations.Source source) {
        Calibration calibration = reader.found(study, number);
        if (source == Calibrations.Source.SETTLED || calibration.isTalkOpen()) {
            requireTalking(calibration);
        }
        return reader.basis(calibration);
    }

    private static AgreedLevel.Key key(CalibrationBasis basis, Calibrations.Agreed agreed) {
        Calibration.Key calibration = basis.calibration().key();
        return new AgreedLevel.Key(
                calibration.studyId(), calibration.number(), agreed.answerId(), agreed.criterionId(), agreed.source());
    }

    /** Takes a settled or reference level away again. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public CalibrationViews.AnswerTalk disagree(
            StudyId study, int number, int place, String criterion, Calibrations.Source source) {
        CalibrationBasis basis = openedToSettle(study, number, source);
        CalibrationBasis.Shown shown = basis.shown(place);
        CriterionView on = criterion(basis, shown, criterion);
        levels.findById(new AgreedLevel.Key(study, number, shown.id(), on.id(), source))
                .ifPresent(levels::delete);
        entities.flush();
        return answer(reader.opened(study, number, actor.id()), place);
    }
}
