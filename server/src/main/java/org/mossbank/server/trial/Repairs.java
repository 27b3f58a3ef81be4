package org.mossbank.server.trial;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SortedMap;
import java.util.function.UnaryOperator;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.change.RepairedCode;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.shared.database.CountedTurn;
import org.mossbank.server.toolchain.Toolchains;
import org.mossbank.server.trial.picture.PagePictures;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Changing an answer's code so that it can be tried, and trying it otherwise than its check does: for other modules too. */
@Service
public class Repairs {
    /** That one person may make of one answer. */
    static final int MOST_OF_ONE = 30;

    private final RepairRepository repairs;
    private final PromptCheckRepository checks;
    private final TrialRunner runner;
    private final Toolchains toolchains;
    private final CheckService.Texts texts;
    private final CheckService.Writing writing;
    private final Turn turn;

    Repairs(
            RepairRepository repairs,
            PromptCheckRepository checks,
            TrialRunner runner,
            Toolchains toolchains,
            CheckService.Texts texts,
            CheckService.Writing writing,
            Turn turn) {
        this.repairs = repairs;
        this.checks = checks;
        this.runner = runner;
        this.toolchains = toolchains;
        this.texts = texts;
        this.writing = writing;
        this.turn = turn;
    }

    /** When it is one's turn to try, to compare, and to write down; and where pictures are kept. */
    @Component
    record Turn(
            Aside aside,
            HeavyWork heavy,
            TransactionTemplate transactions,
            CountedTurn counted,
            PagePictures pictures) {}

    /**
     * A change that a person made to an answer's code so that it can be tried, and how that ended.
     *
     * @param changes file by file, of the code as it is, unmasked
     * @param lines   changed; one that was replaced counts once
     */
    public record RepairMade(
            RepairId id, AnswerId answerId, By by, List<FileChange> changes, int lines, TrialSummary summary) {
        public RepairMade {
            changes = List.copyOf(changes);
        }

        /** Who made it, and when. */
        public record By(AccountId authorId, Instant at) {}
    }

    /** A repair, and what came of it item by item. */
    public record RepairTried(RepairMade repair, TrialResult result) {}

    /** What is tried, read at one moment. */
    private record Read(CheckContent check, Repair.Subject subject, Map<String, String> startingCode, String answer) {}

    private Read read(StudyId study, AnswerId id) {
        toolchains.missing().ifPresent(why -> {
            throw TrialProblem.off(why);
        });
        record Found(PromptCheck check, PromptContent.Asked asked, AnswerView answer) {}
        Found found = texts.snapshot().of(() -> {
            AnswerView answer = texts.answers().one(study, id).orElseThrow(() -> Problem.notFound("This answer"));
            return new Found(
                    checks.findById(answer.promptId()).orElseThrow(TrialProblem::noCheck),
                    texts.prompts().asked(answer.promptId()).orElseThrow(() -> Problem.notFound("This prompt")),
                    answer);
        });
        AnswerView answer = found.answer;
        String digest = Trial.digest(answer, answer.followUps().size());
        return new Read(
                found.check.content(),
                new Repair.Subject(answer.promptId(), id, found.check.digest(), digest),
                found.asked.startingCode(),
                answer.wholeText());
    }

    /** Why nothing can be tried on this server, in words; empty if it can. Whoever asks may want to try something soon. */
    @SystemOnly
    @Transactional(propagation = Propagation.SUPPORTS)
    public Optional<String> missing() {
        toolchains.lookAhead();
        return toolchains.missing();
    }

    /**
     * The files of an answer's code that may be changed, as they are, text by path; empty if there is none.
     *
     * @throws Problem 409 if it cannot be tried
     */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public Map<String, String> files(StudyId study, AnswerId answer) {
        Read read = read(study, answer);
        return runner.repairable(read.check, read.startingCode, read.answer);
    }

    /**
     * Tries an answer with files of it as somebody changed them, and keeps what came of it.
     *
     * @param shown   how a text was shown to whoever changed it
     * @param changed text by path
     * @throws Problem 400 if a file is none of those that may be changed, or nothing is another now; 409 if it cannot be tried
     */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public RepairTried make(StudyId study, AnswerId answer, UnaryOperator<String> shown, Map<String, String> changed) {
        Read read = read(study, answer);
        refuseMany(answer);
        Map<String, String> before = runner.repairable(read.check, read.startingCode, read.answer);
        Repair.Change change = turn.heavy.run(() -> change(before, shown, changed));
        TrialRunner.Tried tried = turn.aside.run(
                stop -> runner.repaired(read.check, read.startingCode, read.answer, change.files(), stop));
        return Objects.requireNonNull(turn.transactions.execute(status -> {
            requireStill(study, read.subject);
            turn.counted.take("repairs of " + writing.actor().id());
            refuseMany(answer);
            RepairMade.By by =
                    new RepairMade.By(writing.actor().id(), writing.actor().now());
            TrialRunner.Tried kept = tried.within(turn.pictures.hasRoom(study, tried.pictures()));
            Repair repair = Repair.of(study, read.subject, change, by, kept.result());
            writing.entities().persist(repair);
            turn.pictures.keepOfRepair(study, repair.made().id(), kept.pictures());
            writing.entities().flush();
            return new RepairTried(repair.made(), kept.result());
        }));
    }

    /** What was tried meanwhile must be what is there. */
    private void requireStill(StudyId study, Repair.Subject subject) {
        boolean same = checks.findById(subject.promptId())
                        .filter(c -> c.digest().equals(subject.checkDigest()))
                        .isPresent()
                && texts.answers()
                        .one(study, subject.answerId())
                        .filter(a -> Trial.digest(a, a.followUps().size()).equals(subject.digest()))
                        .isPresent();
        if (!same) {
            throw new Problem(ProblemType.NOT_READY, "The answer or its check is another by now.");
        }
    }

    private void refuseMany(AnswerId answer) {
        if (repairs.countBy(answer, writing.actor().id()) >= MOST_OF_ONE) {
            throw new Problem(
                    ProblemType.TOO_LARGE, "One person repairs an answer at most %d times.".formatted(MOST_OF_ONE));
        }
    }

    private static Repair.Change change(
            Map<String, String> before, UnaryOperator<String> shown, Map<String, String> changed) {
        changed.keySet().stream().filter(p -> !before.containsKey(p)).forEach(p -> {
            throw Problem.invalid("files", "must be of the answer's code");
        });
        RepairedCode repaired = RepairedCode.of(before, shown, changed);
        List<FileChange> changes = repaired.changes(before);
        if (changes.isEmpty()) {
            throw Problem.invalid("files", "must differ from the answer's code");
        }
        return new Repair.Change(repaired.files(), changes, RepairedCode.lines(changes));
    }

    /**
     * A repair as it was kept: the files that it changed, and what came of it.
     *
     * @throws Problem 404 if the answer has no such repair
     */
    @SystemOnly
    @Transactional(readOnly = true)
    public Kept one(AnswerId answer, RepairId id) {
        Repair repair = repairs.one(answer, id).orElseThrow(() -> Problem.notFound("This repair"));
        return new Kept(repair.made(), repair.files(), repair.result());
    }

    /**
     * A picture of the page of an answer as it was repaired.
     *
     * @param place in the order in which the result tells of them
     * @return PNG
     * @throws Problem 404 if there is none
     */
    @SystemOnly
    @Transactional(readOnly = true)
    public byte[] picture(AnswerId answer, RepairId id, int place) {
        return repairs.one(answer, id)
                .flatMap(r -> turn.pictures.ofRepair(r.made().id(), place))
                .orElseThrow(() -> Problem.notFound("This picture"));
    }

    /** @param files text by path, of the files that were changed */
    public record Kept(RepairMade repair, SortedMap<String, String> files, TrialResult result) {}

    /**
     * Gives an answer's program an input of somebody's own, and keeps nothing.
     *
     * @throws Problem 409 if it cannot be tried
     */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public InputEnd answering(StudyId study, AnswerId answer, InputEnd.Given given) {
        Read read = read(study, answer);
        return turn.aside.run(stop -> runner.answering(read.check, read.startingCode, read.answer, given, stop));
    }
}
