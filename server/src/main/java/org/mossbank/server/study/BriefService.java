package org.mossbank.server.study;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Actor;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.people.ExpectationRepository;
import org.mossbank.server.study.people.Membership;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Writing, closing and reopening the brief. */
@Service
@Transactional(readOnly = true)
class BriefService {
    private final StudyRepository studies;
    private final BriefReopeningRepository reopenings;
    private final ExpectationRepository expectations;
    private final RoundStage rounds;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;
    private final Acts acts;
    private final Actor actor;

    BriefService(
            StudyRepository studies,
            BriefReopeningRepository reopenings,
            ExpectationRepository expectations,
            RoundStage rounds,
            EntityManager entities,
            ApplicationEventPublisher events,
            Acts acts,
            Actor actor) {
        this.studies = studies;
        this.reopenings = reopenings;
        this.expectations = expectations;
        this.rounds = rounds;
        this.entities = entities;
        this.events = events;
        this.acts = acts;
        this.actor = actor;
    }

    /**
     * @param version counts up with every change; sent back with the next one
     * @param forecast what such a study was thought to show when the brief was closed
     * @param missing what must be written before the brief can be closed
     */
    record BriefView(
            String title,
            Brief brief,
            @Nullable Instant closedAt,
            @Nullable KeptForecast forecast,
            long version,
            List<String> missing,
            List<Reopening> reopenings) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public BriefView get(StudyId study) {
        return view(studies.findById(study).orElseThrow());
    }

    private BriefView view(Study study) {
        StudyView view = study.view();
        return new BriefView(
                study.title(),
                view.brief(),
                view.briefClosedAt(),
                view.forecast(),
                study.version(),
                missing(view.brief()),
                reopenings.findByStudyIdOrderByReopenedAt(study.id()).stream()
                        .map(BriefReopening::view)
                        .toList());
    }

    private static List<String> missing(Brief brief) {
        List<String> missing = new ArrayList<>();
        if (brief.question().isBlank()) {
            missing.add("the question");
        }
        if (brief.audience().isBlank()) {
            missing.add("for whom it is");
        }
        return missing;
    }

    record WriteBrief(
            @Min(0) long version,
            @NotBlank @Size(max = 200) String title,
            @NotNull @Valid Brief brief) {}

    /** @throws Problem 409 if the brief is closed or was changed in the meantime */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public BriefView write(StudyId study, WriteBrief request) {
        Study found = studies.lock(study).orElseThrow();
        entities.refresh(found);
        refuseIfClosed(found);
        if (found.version() != request.version()) {
            throw new Problem(
                            ProblemType.CHANGED_ELSEWHERE, "The brief was changed in another window since you saw it.")
                    .with("current", view(found));
        }
        String rule = found.view().brief().rule().inWords();
        found.write(request.title().strip(), request.brief());
        String now = found.view().brief().rule().inWords();
        if (!now.equals(rule)) {
            acts.note(study, AuditSort.RULE_CHANGED, now);
        }
        entities.flush();
        return view(found);
    }

    private static void refuseIfClosed(Study study) {
        if (study.briefClosedAt().isPresent()) {
            throw new Problem(ProblemType.BRIEF_CLOSED, "The brief is closed. Reopen it with a reason to change it.");
        }
    }

    /**
     * @param size of the study that is thought of: what it could show is worked out and kept with the closed brief; absent
     *     where nobody thought of one
     */
    record CloseBrief(@Valid ForecastService.@Nullable PlannedSize size) {}

    /**
     * Freezes brief and rule. Closing twice is the same as once.
     *
     * @param forecast what such a study could show
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public BriefView close(StudyId study, @Nullable KeptForecast forecast) {
        Study found = studies.lock(study).orElseThrow();
        List<String> missing = missing(found.view().brief());
        if (!missing.isEmpty()) {
            throw new Problem(
                    ProblemType.NOT_READY, "The brief cannot be closed without " + String.join(" and ", missing) + ".");
        }
        boolean awaitsLead = found.view().brief().asksExpectations()
                && !expectations.existsById(new Membership.Key(study, actor.id()));
        if (awaitsLead) {
            throw new Problem(
                    ProblemType.EXPECTATION_FIRST,
                    "Say what you expect before you close the brief; it is asked of all.");
        }
        if (found.briefClosedAt().isEmpty()) {
            found.closeBrief(actor.now(), forecast);
            events.publishEvent(new FiguresChanged(study));
            acts.keep(study, ActSort.BRIEF_CLOSED, found.view().brief().rule().inWords(), "");
            entities.flush();
        }
        return view(found);
    }

    record ReopenBrief(@NotBlank @Size(max = 2000) String reason) {}

    /** Opens a closed brief again; the reason and what it said stay on record for the memo. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public BriefView reopen(StudyId study, ReopenBrief request) {
        Study found = studies.lock(study).orElseThrow();
        if (rounds.of(study) == RoundStage.Stage.CLOSED) {
            throw new Problem(ProblemType.ROUND_CLOSED, "The round is closed. Open it again with a reason first.");
        }
        Instant closedAt = found.briefClosedAt()
                .orElseThrow(() -> new Problem(ProblemType.NOT_READY, "The brief is open already."));
        entities.persist(BriefReopening.of(
                study,
                new Reopening(
                        closedAt,
                        actor.now(),
                        actor.name(),
                        request.reason().strip(),
                        found.view().brief().rule().inWords())));
        acts.keep(study, ActSort.BRIEF_REOPENED, found.view().brief().rule().inWords(), request.reason());
        found.reopenBrief();
        events.publishEvent(new FiguresChanged(study));
        entities.flush();
        return view(found);
    }

    /** Says what the brief lacks. */
    @Component
    static class BriefStep implements StepReport {
        private final Studies studies;

        BriefStep(Studies studies) {
            this.studies = studies;
        }

        @Override
        public Step step() {
            return Step.BRIEF;
        }

        @Override
        public StepState stateOf(StudyId study) {
            StudyView view = studies.get(study);
            boolean reopened = !studies.reopenings(study).isEmpty();
            if (view.isBriefClosed()) {
                return StepState.done(Step.BRIEF, reopened ? "closed again" : "closed");
            }
            List<String> missing = missing(view.brief());
            return new StepState(
                    Step.BRIEF,
                    missing.isEmpty() ? 0.7 : 0.3,
                    reopened ? "reopened" : "being written",
                    missing.isEmpty() ? "not closed yet" : String.join(" and ", missing) + " missing");
        }

        @Override
        public List<String> missingBeforeRound(StudyId study) {
            return studies.get(study).isBriefClosed() ? List.of() : List.of("The brief is not closed.");
        }
    }
}
