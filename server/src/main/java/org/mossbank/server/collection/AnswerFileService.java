package org.mossbank.server.collection;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.AnswerCode;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.core.change.ComparisonBudget;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.FollowUpRules;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.Faults;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.multipart.MultipartFile;

/** Answers from a file: seen first, then taken, all or none. A file is read before a transaction begins. */
@Service
class AnswerFileService {
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final FollowUpRules rules;
    private final Studies studies;
    private final HeavyWork heavy;
    private final TransactionTemplate transactions;

    AnswerFileService(
            Prompts prompts,
            Candidates candidates,
            Answers answers,
            FollowUpRules rules,
            Studies studies,
            HeavyWork heavy,
            TransactionTemplate transactions) {
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.rules = rules;
        this.studies = studies;
        this.heavy = heavy;
        this.transactions = transactions;
    }

    /** Whether an answer is new, or there already. */
    enum Match {
        NEW,
        THERE
    }

    /**
     * An answer of the file, matched with the study.
     *
     * @param attempt    which attempt it will be, or is
     * @param characters of all its text
     * @param misfit     where its diff does not fit the starting code; absent if it does
     */
    record Matched(
            String file,
            int line,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            Outcome outcome,
            int characters,
            Match match,
            @Nullable String misfit) {}

    /**
     * What a file would bring.
     *
     * @param faults everything that is wrong with it; while there are any, nothing is taken
     */
    record Preview(List<Matched> answers, List<Fault> faults) {}

    /** What was taken. */
    record Taken(int added, int there) {}

    /** Writes nothing; but looks while nobody can open the round. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public Preview preview(StudyId study, MultipartFile file) throws IOException {
        Incoming incoming = incoming(file);
        Reading reading = matched(study, incoming);
        return heavy.run(() -> {
            ComparisonBudget budget = ComparisonBudget.ofRequest();
            return new Preview(reading.rows.stream().map(r -> r.matched(budget)).toList(), reading.faults.list());
        });
    }

    /** What stands in a file, whatever the study. */
    private record Incoming(List<IncomingAnswer> answers, Faults faults) {}

    private Incoming incoming(MultipartFile file) throws IOException {
        byte[] bytes = file.getBytes();
        String name = Objects.requireNonNullElse(file.getOriginalFilename(), "answers");
        return heavy.run(() -> {
            Faults faults = new Faults();
            return new Incoming(AnswerFileReader.read(name, bytes, faults), faults);
        });
    }

    /** What the file brings to the study as it is now. */
    private Reading matched(StudyId study, Incoming incoming) {
        return Objects.requireNonNull(transactions.execute(status -> {
            studies.requirePreparing(study);
            return read(study, incoming);
        }));
    }

    /**
     * Takes the file's new answers.
     *
     * @throws Problem 400 with every fault if anything is wrong with it; then nothing is written
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public Taken take(StudyId study, MultipartFile file) throws IOException {
        Incoming incoming = incoming(file);
        Map<IncomingAnswer, ChangeSize> changed = weighed(matched(study, incoming));
        return Objects.requireNonNull(transactions.execute(status -> {
            studies.requirePreparing(study);
            return take(study, read(study, incoming), changed);
        }));
    }

    private Map<IncomingAnswer, ChangeSize> weighed(Reading reading) {
        return heavy.run(() -> {
            ComparisonBudget budget = ComparisonBudget.ofRequest();
            Map<IncomingAnswer, ChangeSize> changed = new IdentityHashMap<>();
            reading.rows.forEach(r -> changed.put(
                    r.incoming, ChangeSize.of(r.prompt.startingCode(), r.incoming.wholeText(), budget.within())));
            return changed;
        });
    }

    private Taken take(StudyId study, Reading reading, Map<IncomingAnswer, ChangeSize> changed) {
        if (!reading.faults.isEmpty()) {
            throw new Problem(ProblemType.ANSWERS_REFUSED, "Nothing was taken. See what is wrong with the file.")
                    .with("faults", reading.faults.list());
        }
        List<Answers.Attempt> fresh = reading.rows.stream()
                .filter(r -> r.match == Match.NEW)
                .map(r -> r.toAttempt(changed.getOrDefault(r.incoming, new ChangeSize(0, 0, 0, false))))
                .toList();
        answers.requireRoom(
                study,
                fresh.size(),
                reading.rows.stream()
                        .filter(r -> r.match == Match.NEW)
                        .mapToLong(r -> r.incoming.wholeText().length())
                        .sum());
        answers.addAttempts(study, fresh);
        return new Taken(fresh.size(), reading.rows.size() - fresh.size());
    }

    private record Row(IncomingAnswer incoming, PromptView prompt, CandidateView candidate, int attempt, Match match) {
        Matched matched(ComparisonBudget budget) {
            return new Matched(
                    incoming.file(),
                    incoming.line(),
                    prompt.id(),
                    candidate.id(),
                    attempt,
                    incoming.outcome(),
                    incoming.wholeText().length(),
                    match,
                    AnswerCode.firstMisfit(prompt.startingCode(), incoming.wholeText(), budget.within())
                            .orElse(null));
        }

        Answers.Attempt toAttempt(ChangeSize changed) {
            return new Answers.Attempt(
                    new Answers.Named<>(prompt.id(), prompt.key()),
                    new Answers.Named<>(candidate.id(), candidate.key()),
                    attempt,
                    incoming.outcome(),
                    incoming.text(),
                    incoming.followUps(),
                    incoming.measures(),
                    changed);
        }
    }

    private record Reading(List<Row> rows, Faults faults) {}

    private Reading read(StudyId study, Incoming file) {
        Faults faults = new Faults();
        file.faults.list().forEach(faults::add);
        Map<String, PromptView> promptsByName = byName(prompts.ofStudy(study), PromptView::key, PromptView::title);
        Map<String, CandidateView> candidatesByName =
                byName(candidates.ofStudy(study), CandidateView::key, CandidateView::name);
        Cells cells = new Cells(answers.ofStudy(study));
        int most = rules.most(study).orElse(FollowUp.MOST);
        List<Row> rows = new ArrayList<>();
        for (IncomingAnswer answer : file.answers) {
            Optional<PromptView> prompt = find(promptsByName, answer.prompt());
            Optional<CandidateView> candidate = find(candidatesByName, answer.candidate());
            if (prompt.isEmpty()) {
                fault(faults, answer, "prompt", "the key or title of one prompt of the study", answer.prompt());
            }
            if (candidate.isEmpty()) {
                fault(faults, answer, "candidate", "the key or name of one candidate of the study", answer.candidate());
            }
            if (prompt.isPresent() && candidate.isPresent()) {
                row(answer, prompt.get(), candidate.get(), cells, most, faults).ifPresent(rows::add);
            }
        }
        return new Reading(rows, faults);
    }

    private static Optional<Row> row(
            IncomingAnswer answer, PromptView prompt, CandidateView candidate, Cells cells, int most, Faults faults) {
        if (prompt.fault() != null) {
            fault(faults, answer, "prompt", "a prompt that is not set aside", answer.prompt());
            return Optional.empty();
        }
        if (answer.followUps().size() > most) {
            fault(
                    faults,
                    answer,
                    "follow_ups",
                    "at most " + most + ", as the study gives up then",
                    String.valueOf(answer.followUps().size()));
            return Optional.empty();
        }
        Cell cell = cells.of(prompt, candidate);
        Optional<Integer> there = cell.attemptWith(answer.wholeText(), answer.attempt());
        if (there.isPresent()) {
            return Optional.of(new Row(answer, prompt, candidate, there.get(), Match.THERE));
        }
        if (answer.attempt() != null && cell.texts.containsKey(answer.attempt())) {
            fault(
                    faults,
                    answer,
                    "attempt",
                    "an attempt that is not there with another text",
                    String.valueOf(answer.attempt()));
            return Optional.empty();
        }
        int attempt = answer.attempt() == null ? cell.next() : answer.attempt();
        cell.texts.put(attempt, answer.wholeText());
        return Optional.of(new Row(answer, prompt, candidate, attempt, Match.NEW));
    }

    private static void fault(
            Faults faults, IncomingAnswer answer, String field, String expected, @Nullable String found) {
        faults.add(new Fault(answer.file(), answer.line(), field, expected, found));
    }

    /** By key, and by name where no other has the same. */
    private static <T> Map<String, T> byName(List<T> all, Function<T, String> key, Function<T, String> name) {
        Map<String, T> byName = new HashMap<>();
        Set<String> twice = new HashSet<>();
        all.forEach(t -> {
            if (byName.put(name.apply(t), t) != null) {
                twice.add(name.apply(t));
            }
        });
        twice.forEach(byName::remove);
        all.forEach(t -> byName.put(key.apply(t), t));
        return byName;
    }

    private static <T> Optional<T> find(Map<String, T> byName, String name) {
        return Optional.ofNullable(byName.get(name.strip()));
    }

    /** What is there where a prompt meets a candidate, with what the file itself brings before. */
    private static final class Cell {
        private final Map<Integer, String> texts = new HashMap<>();

        /** The attempt that has this text; of no other number, if one is given. */
        Optional<Integer> attemptWith(String text, @Nullable Integer attempt) {
            return texts.entrySet().stream()
                    .filter(e -> e.getValue().equals(text) && (attempt == null || attempt.equals(e.getKey())))
                    .map(Map.Entry::getKey)
                    .min(Integer::compare);
        }

        int next() {
            return 1 + texts.keySet().stream().mapToInt(Integer::intValue).max().orElse(0);
        }
    }

    private static final class Cells {
        private final Map<Answers.Cell, Cell> cells = new HashMap<>();

        Cells(List<AnswerView> there) {
            there.forEach(a -> cells.computeIfAbsent(new Answers.Cell(a.promptId(), a.candidateId()), c -> new Cell())
                    .texts
                    .put(a.attempt(), a.wholeText()));
        }

        Cell of(PromptView prompt, CandidateView candidate) {
            return cells.computeIfAbsent(new Answers.Cell(prompt.id(), candidate.id()), c -> new Cell());
        }
    }
}
