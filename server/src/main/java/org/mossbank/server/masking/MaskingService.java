package org.mossbank.server.masking;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.masking.GiveAways;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.answer.AnswerRewritten;
import org.mossbank.server.answer.AnswersToSettle;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.figures.WorkedOutAhead;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyBegun;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/** Looking through what was found, and deciding on it. */
@Service
@Transactional(readOnly = true)
class MaskingService {
    private final Stretches stretches;
    private final MaskRepository masks;
    private final MaskingOfStudyRepository maskings;
    private final Studies studies;
    private final EntityManager entities;
    private final Acts acts;
    private final TransactionTemplate transactions;
    private final Clock clock;

    MaskingService(
            Stretches stretches,
            MaskRepository masks,
            MaskingOfStudyRepository maskings,
            Studies studies,
            EntityManager entities,
            Acts acts,
            TransactionTemplate transactions,
            Clock clock) {
        this.stretches = stretches;
        this.masks = masks;
        this.maskings = maskings;
        this.studies = studies;
        this.entities = entities;
        this.acts = acts;
        this.transactions = transactions;
        this.clock = clock;
    }

    @SystemOnly
    @EventListener
    @Order(3)
    @Transactional
    public void layOut(StudyBegun begun) {
        entities.persist(MaskingOfStudy.of(begun.studyId(), List.of()));
    }

    /** Decisions were made on what stood there. */
    @SystemOnly
    @EventListener
    @Transactional
    public void forget(AnswerRewritten rewritten) {
        masks.deleteOfAnswer(rewritten.answerId());
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public MaskingView view(StudyId study) {
        return viewOf(study);
    }

    private MaskingView viewOf(StudyId study) {
        List<Stretches.AnswerStretches> found = stretches.workedOut(study);
        Optional<MaskingOfStudy> masking = maskings.findById(study);
        return new MaskingView(
                masking.map(MaskingOfStudy::words).orElse(List.of()),
                masking.map(MaskingOfStudy::version).orElse(0L),
                undecided(found),
                MaskingView.shown(found));
    }

    private static int undecided(List<Stretches.AnswerStretches> found) {
        return (int) found.stream()
                .flatMap(a -> a.stretches().stream())
                .filter(s -> s.accepted() == null)
                .count();
    }

    record WriteWords(
            @Min(0) long version, @NotNull @Size(max = 200) List<@NotBlank @Size(max = 100) String> words) {}

    /** @throws Problem 409 if they were changed in the meantime, or the round was opened */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public MaskingView writeWords(StudyId study, WriteWords request) {
        boolean written = Boolean.TRUE.equals(transactions.execute(status -> write(study, request)));
        MaskingView view = viewOf(study);
        if (!written) {
            throw new Problem(
                            ProblemType.CHANGED_ELSEWHERE,
                            "The words were changed in another window since you saw them.")
                    .with("current", view);
        }
        return view;
    }

    /** Whether the words are still those that were seen, and so were written. */
    private boolean write(StudyId study, WriteWords request) {
        studies.requirePreparing(study);
        MaskingOfStudy masking = lock(study);
        if (masking.version() != request.version()) {
            return false;
        }
        masking.write(request.words().stream().map(String::strip).distinct().toList());
        acts.keep(
                study,
                ActSort.MASKING_CHANGED,
                "words to mask: " + masking.words().size(),
                "");
        return true;
    }

    /**
     * @param decisions each on a stretch that was found or decided on before
     */
    record Decide(@NotEmpty @Size(max = 20000) List<@Valid @NotNull Decision> decisions) {}

    /**
     * @param from        first character of the stretch
     * @param accept      whether it is masked; absent takes an earlier decision back
     * @param replacement what raters read instead; absent takes the one that was proposed
     */
    record Decision(
            @NotNull AnswerId answerId,
            @Min(0) int from,
            @Nullable Boolean accept,
            @Nullable @Size(max = 200) String replacement) {}

    /** Decides on stretches, all or none. The same decisions again change nothing. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public MaskingView decide(StudyId study, Decide request) {
        stretches.workedOut(study);
        transactions.executeWithoutResult(status -> decideAll(study, request));
        return viewOf(study);
    }

    private void decideAll(StudyId study, Decide request) {
        studies.requirePreparing(study);
        lock(study);
        Map<AnswerId, Stretches.AnswerStretches> byAnswer = new HashMap<>();
        stretches.ofStudy(study).forEach(a -> byAnswer.put(a.answer().id(), a));
        Map<AnswerId, List<Mask>> decided = stretches.decidedIn(study);
        acts.keep(
                study,
                ActSort.MASKING_CHANGED,
                "places decided on: " + request.decisions().size(),
                "");
        Instant now = clock.instant();
        for (int i = 0; i < request.decisions().size(); i++) {
            Decision decision = request.decisions().get(i);
            Stretches.AnswerStretches answer = byAnswer.get(decision.answerId());
            Stretches.Stretch stretch = answer == null ? null : at(answer, decision.from());
            if (answer == null || stretch == null) {
                throw Problem.invalid(
                        "decisions[" + i + "].from", "must be where a stretch begins that gives a candidate away");
            }
            stretches.refuseIfCalibrating(answer.answer());
            decide(decision, answer.answer(), stretch, decided.getOrDefault(decision.answerId(), List.of()), now);
        }
    }

    private void decide(
            Decision decision,
            FactsOfAnswers.Whole answer,
            Stretches.Stretch stretch,
            List<Mask> decided,
            Instant now) {
        Optional<Mask> before =
                decided.stream().filter(m -> m.span().equals(stretch.span())).findFirst();
        Boolean accepted = decision.accept();
        if (accepted == null) {
            before.ifPresent(masks::delete);
            return;
        }
        String replacement = Objects.requireNonNullElse(decision.replacement(), stretch.replacement());
        before.ifPresentOrElse(
                m -> m.decide(accepted, replacement, now),
                () -> entities.persist(Mask.of(
                        answer.id(),
                        new Masking.Decided(
                                stretch.span().from(),
                                stretch.span().to(),
                                stretch.span().of(answer.text()),
                                stretch.sort(),
                                replacement,
                                accepted,
                                now))));
    }

    private static Stretches.@Nullable Stretch at(Stretches.AnswerStretches answer, int from) {
        return answer.stretches().stream()
                .filter(s -> s.span().from() == from)
                .findFirst()
                .orElse(null);
    }

    private MaskingOfStudy lock(StudyId study) {
        MaskingOfStudy masking = maskings.lock(study);
        entities.refresh(masking);
        return masking;
    }

    /** To search all texts of a large study takes long, the first time. */
    @Component
    static class SearchedAhead implements WorkedOutAhead {
        private final Stretches stretches;

        SearchedAhead(Stretches stretches) {
            this.stretches = stretches;
        }

        @Override
        public void workOut(StudyId study) {
            stretches.workedOut(study);
        }
    }

    /** A round opens when everything that was found is decided on. */
    @Component
    static class Undecided implements AnswersToSettle {
        private final Stretches stretches;

        Undecided(Stretches stretches) {
            this.stretches = stretches;
        }

        @Override
        public Optional<String> toSettle(StudyId study) {
            List<Stretches.AnswerStretches> found = TransactionSynchronizationManager.isActualTransactionActive()
                    ? stretches.ofStudy(study)
                    : stretches.workedOut(study);
            Optional<Stretches.AnswerStretches> tooMuch =
                    found.stream().filter(a -> !a.complete()).findFirst();
            if (tooMuch.isPresent()) {
                return Optional.of(
                        "the answer %s gives its candidate away in more than %,d places; shorten it, or leave it out"
                                .formatted(tooMuch.get().answer().key(), GiveAways.MOST));
            }
            int open = undecided(found);
            return open == 0
                    ? Optional.empty()
                    : Optional.of(
                            open == 1
                                    ? "one stretch may give its candidate away"
                                    : open + " stretches may give their candidates away");
        }
    }
}
