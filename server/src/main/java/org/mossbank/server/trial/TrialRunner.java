package org.mossbank.server.trial;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.AnswerLines;
import org.mossbank.core.trial.BeforeAndAfter;
import org.mossbank.core.trial.BuildEnd;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.CompilerMessage;
import org.mossbank.core.trial.ExpectedRows;
import org.mossbank.core.trial.RunEnd;
import org.mossbank.core.trial.Shell;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.page.PageContent;
import org.mossbank.server.page.Pages;
import org.mossbank.server.page.Picture;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.SandboxJob;
import org.mossbank.server.sandbox.SandboxLimits;
import org.mossbank.server.sandbox.SandboxResult;
import org.mossbank.server.sandbox.WorkFiles;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.toolchain.Toolchains;
import org.mossbank.server.trial.picture.PagePictures;
import org.springframework.stereotype.Component;

/** Tries code by a check: builds it, then runs and tests what was built, each from where the build ended. */
@Component
class TrialRunner {
    /** Where a query of the check lies, over a file of that name that an answer may have, and where its rows are written. */
    private static final String QUERY = ".query.sql";

    private static final String ROWS = ".rows.csv";

    private static final long MOST_KEPT = 20;

    private final Sandbox sandbox;
    private final CodeForTrial code;
    private final Pages pages;
    /** How tests of repositories ended before any answer: the same for all answers of a check. */
    private final Cache<CheckContent, List<CheckItem>> before =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).build();

    TrialRunner(Sandbox sandbox, CodeForTrial code, Pages pages) {
        this.sandbox = sandbox;
        this.code = code;
        this.pages = pages;
    }

    /**
     * What came of a trial.
     *
     * @param pictures of its page, in the order in which the result tells of them
     */
    record Tried(TrialResult result, List<Picture> pictures) {
        Tried {
            pictures = List.copyOf(pictures);
        }

        /** The same, without its pictures where there is no room for them. */
        Tried within(boolean room) {
            return room ? this : new Tried(result.withoutPictures(PagePictures.NO_ROOM), List.of());
        }
    }

    /** Somebody stopped it before it ended. */
    static final class Stopped extends Exception {
        private static final long serialVersionUID = 1;
    }

    /**
     * Tries an answer.
     *
     * @param startingCode text by path
     * @param answer       Markdown
     * @throws Problem 409 if the check's toolchain is not offered here, or no page can be opened; 400 if its repository cannot be
     *     read here
     */
    Tried tried(CheckContent check, Map<String, String> startingCode, String answer, Sandbox.Stop stop) throws Stopped {
        CodeForTrial.Laid laid = code.of(check, startingCode, answer);
        return laid.code().misfit().isPresent()
                ? unfit(laid)
                : new Trying(check, laid, stop).all(answer, before(check, stop));
    }

    /** The files of an answer's code that a person may change. */
    Map<String, String> repairable(CheckContent check, Map<String, String> startingCode, String answer) {
        return code.repairable(check, startingCode, answer);
    }

    /** Tries an answer with files of it as a person changed them. */
    Tried repaired(
            CheckContent check,
            Map<String, String> startingCode,
            String answer,
            Map<String, String> changed,
            Sandbox.Stop stop)
            throws Stopped {
        return new Trying(check, code.repaired(check, startingCode, answer, changed), stop)
                .all(answer, before(check, stop));
    }

    /** Gives an answer's program an input of somebody's own. */
    InputEnd answering(
            CheckContent check,
            Map<String, String> startingCode,
            String answer,
            InputEnd.Given given,
            Sandbox.Stop stop)
            throws Stopped {
        CodeForTrial.Laid laid = code.of(check, startingCode, answer);
        return laid.code().misfit().isPresent()
                ? InputEnd.notBuilt(
                        TrialOutcome.DID_NOT_APPLY, laid.code().misfit().get())
                : new Trying(check, laid, stop).given(given);
    }

    /** Tries the starting code as it is. */
    Tried unanswered(CheckContent check, Map<String, String> startingCode, Sandbox.Stop stop) throws Stopped {
        return new Trying(check, code.before(check, startingCode), stop).all("", before(check, stop));
    }

    /** How the repository's tests end without an answer; none if it does not build, or there is no repository. */
    private List<CheckItem> before(CheckContent check, Sandbox.Stop stop) throws Stopped {
        if (check.repository() == null) {
            return List.of();
        }
        List<CheckItem> known = before.getIfPresent(check);
        if (known == null) {
            known = new Trying(check, code.before(check, Map.of()), stop).testsAlone();
            before.put(check, known);
        }
        return known;
    }

    private static Tried unfit(CodeForTrial.Laid laid) {
        CheckItem misfit = CheckItem.ended(
                CheckItem.Sort.BUILD,
                "code",
                TrialOutcome.DID_NOT_APPLY,
                laid.code().misfit().orElseThrow());
        TrialResult result = new TrialResult(
                TrialSummary.of(List.of(misfit)), List.of(misfit), List.of(), "", 0, 0, laid.repository(), List.of());
        return new Tried(result, List.of());
    }

    /** One trial under way. */
    private final class Trying {
        private final CheckContent check;
        private final Toolchains.Offered toolchain;
        private final CodeForTrial.Laid laid;
        private final Sandbox.Stop stop;
        private final SandboxLimits limits;
        private final TrialLog log = new TrialLog();
        private final List<CheckItem> items = new ArrayList<>();
        private List<CompilerMessage> messages = List.of();
        private List<Picture> pictures = List.of();
        private long millis;
        private long memoryKb;

        private Trying(CheckContent check, CodeForTrial.Laid laid, Sandbox.Stop stop) {
            this.check = check;
            this.toolchain = code.offered(check);
            this.laid = laid;
            this.stop = stop;
            this.limits = check.limits().limits();
        }

        /** @param before tests of a repository as they ended without the answer */
        private Tried all(String answer, List<CheckItem> before) throws Stopped {
            code.requireHere(check);
            Optional<WorkFiles> built = build(laid.files());
            if (built.isPresent()) {
                for (CheckContent.RunOfCheck run : check.runs()) {
                    run(run, built.get());
                }
                if (check.tests() != null) {
                    items.addAll(told(test(check.tests(), built.get()), before));
                }
                if (check.page() != null) {
                    look(check.page(), built.get());
                }
            }
            TrialResult result = new TrialResult(
                    TrialSummary.of(items),
                    items.stream().map(TrialLog::plain).toList(),
                    withLines(answer),
                    log.text(),
                    millis,
                    memoryKb,
                    laid.repository(),
                    pictures.stream().map(p -> TrialLog.plain(p.about())).toList());
            return new Tried(result, pictures);
        }

        private InputEnd given(InputEnd.Given given) throws Stopped {
            Optional<WorkFiles> built = build(laid.files());
            if (built.isEmpty()) {
                return InputEnd.notBuilt(items.get(0).outcome(), log.text());
            }
            SandboxResult result =
                    step("input", built.get(), check.run() + Shell.quoted(given.arguments()), given.input());
            return InputEnd.of(end(result, built.get()));
        }

        private SandboxResult step(String name, WorkFiles files, String command, String input) throws Stopped {
            SandboxResult result = sandbox.run(
                    new SandboxJob(files, toolchain.prelude() + command + "\n", input, toolchain.tools(), limits),
                    stop);
            took(name, result);
            return result;
        }

        private void took(String name, SandboxResult result) throws Stopped {
            if (result.ending() == SandboxResult.Ending.STOPPED) {
                throw new Stopped();
            }
            log.step(name, result);
            millis += result.millis();
            memoryKb = Math.max(memoryKb, result.mostMemoryKb());
        }

        /** @return the files that it ends in; empty if it does not build */
        private Optional<WorkFiles> build(WorkFiles files) throws Stopped {
            if (check.build().isBlank()) {
                return Optional.of(files);
            }
            SandboxResult result = step("build", files, check.build(), "");
            messages = CompilerMessage.in(
                    result.errors().text() + "\n" + result.output().text());
            CheckItem item = BuildEnd.judge(end(result, files));
            items.add(item);
            return item.outcome().passed() ? Optional.of(result.files()) : Optional.empty();
        }

        private void run(CheckContent.RunOfCheck run, WorkFiles built) throws Stopped {
            WorkFiles files = built.with(CheckContent.texts(run.before()));
            String command = check.run() + Shell.quoted(run.arguments());
            CheckContent.RowsAfter rows = run.rows();
            if (rows != null) {
                files = files.with(Map.of(QUERY, rows.query()));
                // Rows are asked for only where the program ended as it should.
                command = "{ " + command + "\n} && sql " + QUERY + " >" + ROWS;
            }
            SandboxResult result = step(run.name(), files, command, run.input());
            RunEnd end = end(result, files);
            CheckItem item = run.expected().judge(end);
            items.add(rows == null || !item.outcome().passed() ? item : judged(run.name(), rows, end));
        }

        private CheckItem judged(String name, CheckContent.RowsAfter rows, RunEnd end) {
            String came = end.files().getOrDefault(ROWS, "");
            return new ExpectedRows(rows.rows(), rows.order())
                    .difference(came)
                    .map(why -> new CheckItem(
                            CheckItem.Sort.RUN,
                            name,
                            TrialOutcome.WRONG_OUTPUT,
                            rows.rows(),
                            came,
                            "of its rows, " + why))
                    .orElseGet(() -> CheckItem.passed(CheckItem.Sort.RUN, name));
        }

        private List<CheckItem> test(CheckContent.TestsOfCheck tests, WorkFiles built) throws Stopped {
            SandboxResult result = step("tests", built, tests.command(), "");
            return tests.expected().judge(end(result, built));
        }

        private void look(PageContent page, WorkFiles built) throws Stopped {
            Pages.Seen seen = pages.look(built, page, stop);
            took("page", seen.run());
            pictures = seen.pictures();
            items.addAll(seen.judged(page));
        }

        private List<CheckItem> told(List<CheckItem> after, List<CheckItem> before) {
            return check.repository() == null
                    ? after
                    : BeforeAndAfter.told(
                            before, after, Set.copyOf(check.repository().wanted()));
        }

        private List<CheckItem> testsAlone() throws Stopped {
            Optional<WorkFiles> built = build(laid.files());
            return built.isEmpty() || check.tests() == null ? List.of() : test(check.tests(), built.get());
        }

        private List<TrialResult.MessageOfLine> withLines(String answer) {
            AnswerLines lines = AnswerLines.of(answer);
            Map<String, List<String>> byFile = new HashMap<>();
            return messages.stream()
                    .map(m -> new TrialResult.MessageOfLine(TrialLog.plain(m), line(lines, byFile, m)))
                    .toList();
        }

        /** Only what the answer wrote can be its line. */
        private @Nullable Integer line(AnswerLines lines, Map<String, List<String>> byFile, CompilerMessage message) {
            if (!laid.code().written().contains(message.path())) {
                return null;
            }
            List<String> file = byFile.computeIfAbsent(
                    message.path(),
                    p -> laid.code().files().getOrDefault(p, "").lines().toList());
            return lines.find(file, message.line()).stream().boxed().findFirst().orElse(null);
        }
    }

    private static RunEnd end(SandboxResult result, WorkFiles before) {
        Map<String, String> texts = new HashMap<>();
        Set<String> changed = new HashSet<>();
        for (String path : result.files().paths()) {
            result.files().text(path).ifPresent(t -> texts.put(path, t));
            if (!result.files().isAlike(before, path)) {
                changed.add(path);
            }
        }
        before.paths().stream().filter(p -> !texts.containsKey(p)).forEach(changed::add);
        changed.remove(ROWS);
        return new RunEnd(
                how(result.ending()),
                result.status(),
                result.output().text(),
                result.errors().text(),
                texts,
                changed);
    }

    private static RunEnd.End how(SandboxResult.Ending ending) {
        return switch (ending) {
            case BY_ITSELF -> RunEnd.End.BY_ITSELF;
            case TIMED_OUT -> RunEnd.End.TIMED_OUT;
            case OUT_OF_MEMORY -> RunEnd.End.OUT_OF_MEMORY;
            case WROTE_TOO_MUCH -> RunEnd.End.WROTE_TOO_MUCH;
            case BROKE_ITS_BOX, STOPPED -> RunEnd.End.BROKE_ITS_BOX;
        };
    }
}
