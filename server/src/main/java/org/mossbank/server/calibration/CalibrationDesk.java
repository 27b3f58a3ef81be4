package org.mossbank.server.calibration;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyAccess;
import org.mossbank.server.study.StudyPeople;
import org.mossbank.server.study.StudyView;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Calibrations as somebody sees them. */
@Service
@Transactional(readOnly = true)
class CalibrationDesk {
    private final CalibrationRepository all;
    private final CalibrationReader reader;
    private final CalibrationPages pages;
    private final StudyPeople names;
    private final Studies studies;
    private final StudyAccess access;
    private final CurrentAccount current;

    CalibrationDesk(
            CalibrationRepository all,
            CalibrationReader reader,
            CalibrationPages pages,
            StudyPeople names,
            Studies studies,
            StudyAccess access,
            CurrentAccount current) {
        this.all = all;
        this.reader = reader;
        this.pages = pages;
        this.names = names;
        this.studies = studies;
        this.access = access;
        this.current = current;
    }

    @PreAuthorize("@studyAccess.mayEnter(#study)")
    public List<CalibrationViews.CalibrationSummary> ofStudy(StudyId study) {
        StudyView view = studies.get(study);
        return all.ofStudy(study).stream().map(c -> summary(c, view)).toList();
    }

    /** Calibrations of studies that are being prepared, and while a round is open those that whoever asks has sheets of. */
    @PreAuthorize("isAuthenticated()")
    public List<CalibrationViews.CalibrationSummary> mine() {
        AccountId own = current.id();
        Map<StudyId, RoundStage.Stage> stages =
                studies.stages(studies.ofMember(own).keySet());
        List<Calibration> going = all.ofStudies(stages.keySet().stream()
                .filter(s -> stages.get(s) != RoundStage.Stage.CLOSED)
                .toList());
        Map<StudyId, StudyView> views = studies.byId(
                going.stream().map(c -> c.key().studyId()).distinct().toList());
        Map<Calibration.Key, CalibrationReader.Material> material = reader.material(going);
        List<CalibrationViews.CalibrationSummary> mine = new ArrayList<>();
        for (Calibration calibration : going) {
            StudyId study = calibration.key().studyId();
            CalibrationReader.Material of = Require.known(material, calibration.key());
            boolean takesPart = of.sheets().stream().anyMatch(s -> s.raterId().equals(own));
            if (takesPart || stages.get(study) == RoundStage.Stage.PREPARING) {
                mine.add(summary(calibration, Require.known(views, study), of, null));
            }
        }
        mine.sort(Comparator.comparing(CalibrationViews.CalibrationSummary::studyTitle)
                .thenComparingInt(CalibrationViews.CalibrationSummary::number));
        return mine;
    }

    private CalibrationViews.CalibrationSummary summary(Calibration calibration, StudyView study) {
        return summary(
                calibration,
                study,
                Require.known(reader.material(List.of(calibration)), calibration.key()),
                calibration.isTalkOpen()
                        ? new CalibrationFigures(
                                        reader.basis(calibration), study.brief().rule())
                                .shortOfFloor()
                                .isEmpty()
                        : null);
    }

    private CalibrationViews.CalibrationSummary summary(
            Calibration calibration, StudyView study, CalibrationReader.Material of, @Nullable Boolean reached) {
        List<Grading.SheetState> sheets = of.sheets();
        CalibrationViews.Stage stage = reader.stage(calibration, sheets);
        List<Grading.SheetState> asked = sheets.stream()
                .filter(s -> s.repeat() == (stage == CalibrationViews.Stage.AGAIN))
                .toList();
        AccountId own = current.id();
        return new CalibrationViews.CalibrationSummary(
                study.id(),
                study.title(),
                calibration.key().number(),
                stage,
                of.outlines().stream().map(Prompts.Outline::title).toList(),
                (int) asked.stream().filter(Grading.SheetState::sent).count(),
                asked.size(),
                reader.mayCompare(calibration, own, sheets),
                (int) sheets.stream()
                        .filter(s -> s.raterId().equals(own) && !s.sent())
                        .count(),
                reached);
    }

    @PreAuthorize("@studyAccess.mayEnter(#study)")
    public CalibrationViews.CalibrationPage page(StudyId study, int number) {
        Calibration calibration = reader.found(study, number);
        List<Grading.SheetState> sheets = reader.sheets(calibration.key());
        CalibrationViews.CalibrationSummary summary = summary(calibration, studies.get(study));
        boolean leads = access.mayLead(study) && access.mayPrepare(study);
        List<CalibrationViews.Awaited> waitsFor = leads ? waitsFor(study, sheets, summary.stage()) : List.of();
        if (!summary.open()) {
            return closed(calibration, summary, waitsFor, leads);
        }
        CalibrationBasis basis = reader.basis(calibration);
        CalibrationFigures figures =
                new CalibrationFigures(basis, studies.get(study).brief().rule());
        List<AccountView> raters = pages.raters(basis);
        AccountId own = current.id();
        return new CalibrationViews.CalibrationPage(
                summary,
                calibration.course(),
                waitsFor,
                criteria(basis),
                figures.agreement(),
                raters.stream()
                        .filter(r -> leads || r.id().equals(own))
                        .map(r -> figures.distance(r.id(), r.displayName(), r.id().equals(own)))
                        .toList(),
                raters.stream().map(AccountView::displayName).toList(),
                pages.levels(basis, raters),
                reader.isTalking(calibration, sheets),
                leads,
                leads
                        && summary.stage() == CalibrationViews.Stage.TALK
                        && calibration.course().again() == null);
    }

    /** The lead reads the answers alone, to note at which level they should stand. */
    private CalibrationViews.CalibrationPage closed(
            Calibration calibration,
            CalibrationViews.CalibrationSummary summary,
            List<CalibrationViews.Awaited> waitsFor,
            boolean leads) {
        CalibrationBasis basis = reader.basis(calibration).ungraded();
        return new CalibrationViews.CalibrationPage(
                summary,
                calibration.course(),
                waitsFor,
                leads ? criteria(basis) : List.of(),
                List.of(),
                List.of(),
                List.of(),
                leads ? pages.levels(basis, List.of()) : List.of(),
                false,
                leads,
                false);
    }

    private static List<CalibrationViews.RulerCriterion> criteria(CalibrationBasis basis) {
        return basis.criteria().stream()
                .map(c -> new CalibrationViews.RulerCriterion(c.key(), c.name(), c.highestLevel()))
                .toList();
    }

    private List<CalibrationViews.Awaited> waitsFor(
            StudyId study, List<Grading.SheetState> sheets, CalibrationViews.Stage stage) {
        List<AccountId> open = sheets.stream()
                .filter(s -> !s.sent() && s.repeat() == (stage == CalibrationViews.Stage.AGAIN))
                .map(Grading.SheetState::raterId)
                .distinct()
                .toList();
        Map<AccountId, AccountView> people = names.of(study, open);
        return open.stream()
                .map(id -> new CalibrationViews.Awaited(
                        id, Require.known(people, id).displayName()))
                .sorted(Comparator.comparing(CalibrationViews.Awaited::name))
                .toList();
    }
}
