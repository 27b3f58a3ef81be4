package org.mossbank.server.trial;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.answer.AnswerRewritten;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.trial.picture.PagePictures;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Gives trials out to servers, and takes down what came of them. One that a server was killed over begins anew: nothing of it was
 * kept, so none counts twice.
 */
@Service
class TrialWork {
    /** A server that says nothing for so long is taken for dead. */
    static final Duration LEASE = Duration.ofSeconds(15);

    private final TrialRepository trials;
    private final RepairRepository repairs;
    private final PromptCheckRepository checks;
    private final Prompts prompts;
    private final Answers answers;
    private final PagePictures pictures;
    private final Clock clock;

    TrialWork(
            TrialRepository trials,
            RepairRepository repairs,
            PromptCheckRepository checks,
            Prompts prompts,
            Answers answers,
            PagePictures pictures,
            Clock clock) {
        this.pictures = pictures;
        this.trials = trials;
        this.repairs = repairs;
        this.checks = checks;
        this.prompts = prompts;
        this.answers = answers;
        this.clock = clock;
    }

    /**
     * A trial to run.
     *
     * @param startingCode text by path
     * @param answer       Markdown, up to the turn that is tried
     */
    record Claim(UUID trialId, CheckContent check, Map<String, String> startingCode, String answer) {}

    /** The next trials, at most so many. One whose check or answer is another by now is forgotten. */
    @SystemOnly
    @Transactional
    public List<Claim> claim(UUID server, int most) {
        List<Claim> claims = new ArrayList<>();
        for (Trial trial : trials.waiting(most)) {
            Optional<Claim> claim = claim(trial);
            claim.ifPresentOrElse(
                    c -> {
                        trial.claim(server, clock.instant().plus(LEASE));
                        claims.add(c);
                    },
                    () -> trials.delete(trial));
        }
        return claims;
    }

    private Optional<Claim> claim(Trial trial) {
        Trial.Subject subject = trial.subject();
        Optional<PromptCheck> check = checks.findById(subject.promptId());
        Optional<PromptContent.Asked> asked = prompts.asked(subject.promptId());
        Optional<AnswerView> answer = answers.one(trial.studyId(), subject.answerId());
        if (check.isEmpty()
                || !check.get().digest().equals(subject.checkDigest())
                || asked.isEmpty()
                || answer.isEmpty()
                || !trial.isOf(answer.get())) {
            return Optional.empty();
        }
        return Optional.of(new Claim(
                trial.id(),
                check.get().content(),
                asked.get().startingCode(),
                answer.get().textUpTo(subject.turn())));
    }

    /** @return whether to go on: not if it was stopped, or is another's by now */
    @SystemOnly
    @Transactional
    public boolean keep(UUID trial, UUID server) {
        return trials.lock(trial)
                .filter(t -> t.isOwnedBy(server))
                .map(t -> {
                    t.keep(clock.instant().plus(LEASE));
                    return true;
                })
                .orElse(false);
    }

    @SystemOnly
    @Transactional
    public void finish(UUID trial, UUID server, TrialRunner.Tried tried) {
        trials.lock(trial).filter(t -> t.isOwnedBy(server)).ifPresent(t -> {
            TrialRunner.Tried kept = tried.within(pictures.hasRoom(t.studyId(), tried.pictures()));
            t.end(kept.result(), clock.instant());
            pictures.keepOfTrial(t.studyId(), t.id(), kept.pictures());
        });
    }

    /** It did not come to an end here: it waits for whoever takes it next. */
    @SystemOnly
    @Transactional
    public void giveBack(UUID trial, UUID server) {
        trials.lock(trial).filter(t -> t.isOwnedBy(server)).ifPresent(Trial::waitAgain);
    }

    /** What servers that are taken for dead were at waits again. */
    @SystemOnly
    @Transactional
    public void recover() {
        Instant now = clock.instant();
        trials.forsaken(now).forEach(Trial::waitAgain);
    }

    /** Of an answer that reads otherwise now, only trials of turns that read as they did still say something. */
    @SystemOnly
    @EventListener
    @Transactional
    public void forget(AnswerRewritten rewritten) {
        List<Trial> before = trials.findByAnswerId(rewritten.answerId());
        List<Repair> repaired = repairs.findByAnswerId(rewritten.answerId());
        if (before.isEmpty() && repaired.isEmpty()) {
            return;
        }
        Optional<AnswerView> now = answers.one(rewritten.answerId());
        before.stream().filter(t -> now.filter(t::isOf).isEmpty()).forEach(trials::delete);
        repaired.stream().filter(r -> now.filter(r::isOf).isEmpty()).forEach(repairs::delete);
    }
}
