package org.mossbank.server.trial;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.AnswerCode;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.trial.AssembledCode;
import org.mossbank.server.answer.AnswerCodes;
import org.mossbank.server.page.Pages;
import org.mossbank.server.sandbox.WorkFiles;
import org.mossbank.server.startingcode.RepositoryCopies;
import org.mossbank.server.startingcode.RepositoryCopy;
import org.mossbank.server.toolchain.Toolchains;
import org.springframework.stereotype.Component;

/** Lays out the files that an answer's code is tried as: over the starting code, or over a whole repository. */
@Component
class CodeForTrial {
    private final AnswerCodes codes;
    private final RepositoryCopies repositories;
    private final Toolchains toolchains;
    private final Pages pages;

    CodeForTrial(AnswerCodes codes, RepositoryCopies repositories, Toolchains toolchains, Pages pages) {
        this.pages = pages;
        this.codes = codes;
        this.repositories = repositories;
        this.toolchains = toolchains;
    }

    /**
     * @param code       put together, or with why it cannot be
     * @param files      of the work folder, those that are no texts among them
     * @param repository what becomes of it; absent where there is none
     */
    record Laid(AssembledCode code, WorkFiles files, TrialResult.@Nullable RepositoryEnd repository) {}

    private static Laid plain(AssembledCode code) {
        return new Laid(code, WorkFiles.of(code.files()), null);
    }

    Toolchains.Offered offered(CheckContent check) {
        return toolchains.of(check.toolchain()).orElseThrow(() -> TrialProblem.notOffered(check.toolchain()));
    }

    /**
     * Looks whether answers can be tried by a check on this server.
     *
     * @throws org.mossbank.server.shared.Problem 400 if its repository cannot be read here; 409 if no page can be opened
     */
    void requireHere(CheckContent check) {
        if (check.repository() != null) {
            copy(check.repository());
        }
        if (check.page() != null) {
            pages.missing().ifPresent(why -> {
                throw TrialProblem.noPages(why);
            });
        }
    }

    /**
     * @param startingCode text by path
     * @param answer       Markdown
     */
    Laid of(CheckContent check, Map<String, String> startingCode, String answer) {
        if (check.repository() == null) {
            return plain(assembled(check, startingCode, codes.of(startingCode, answer)));
        }
        RepositoryCopy copy = copy(check.repository());
        AnswerCode.Loosely fitted = codes.loosely(copy.texts(), answer);
        AssembledCode code = assembled(check, copy.texts(), fitted.code());
        List<String> changed = fitted.code().changes().stream()
                .flatMap(c ->
                        java.util.stream.Stream.of(c.change().from(), c.change().path()))
                .distinct()
                .sorted()
                .toList();
        List<String> outside = changed.stream()
                .filter(p -> copy.files().containsKey(p) && !startingCode.containsKey(p))
                .toList();
        return laid(code, copy, new TrialResult.RepositoryEnd(copy.commit(), changed, outside, fitted.told()));
    }

    /** As it is before any answer. */
    Laid before(CheckContent check, Map<String, String> startingCode) {
        Map<String, String> extra = CheckContent.texts(check.files());
        if (check.repository() == null) {
            return plain(AssembledCode.of(startingCode, extra));
        }
        RepositoryCopy copy = copy(check.repository());
        return laid(
                AssembledCode.of(copy.texts(), extra),
                copy,
                new TrialResult.RepositoryEnd(copy.commit(), List.of(), List.of(), List.of()));
    }

    /** The same with files of it as a person changed them. */
    Laid repaired(CheckContent check, Map<String, String> startingCode, String answer, Map<String, String> changed) {
        Laid laid = of(check, startingCode, answer);
        Laid base = laid.code.misfit().isEmpty() ? laid : before(check, startingCode);
        AssembledCode code = base.code.repaired(changed);
        return new Laid(code, base.files.with(changed), laid.repository);
    }

    /**
     * The files that a person may change so that an answer can be tried: what it wrote, then what it left of the starting code; where
     * it does not fit, the starting code alone, so that it can be brought in by hand. What the check lays over them is left out.
     */
    Map<String, String> repairable(CheckContent check, Map<String, String> startingCode, String answer) {
        AssembledCode code = of(check, startingCode, answer).code;
        Map<String, String> own = new LinkedHashMap<>();
        AssembledCode base = code.misfit().isEmpty() ? code : before(check, startingCode).code;
        code.written().forEach(p -> own.put(p, Require.known(base.files(), p)));
        // Of a whole repository those that the prompt shows, as the repository has them: nobody looks through
        // thousands.
        new TreeMap<>(startingCode)
                .keySet().stream()
                        .filter(base.files()::containsKey)
                        .forEach(p -> own.putIfAbsent(p, Require.known(base.files(), p)));
        check.files().forEach(f -> own.remove(f.path()));
        return own;
    }

    private AssembledCode assembled(CheckContent check, Map<String, String> base, AnswerCode code) {
        return AssembledCode.of(
                base,
                code,
                Optional.ofNullable(check.loose()).map(CheckContent.LooseRule::rule),
                Set.copyOf(offered(check).languages()),
                CheckContent.texts(check.files()));
    }

    private RepositoryCopy copy(CheckContent.RepositoryOfCheck of) {
        return repositories.at(of.repository(), of.commit());
    }

    private static Laid laid(AssembledCode code, RepositoryCopy copy, TrialResult.RepositoryEnd end) {
        List<String> removed = copy.texts().keySet().stream()
                .filter(p -> !code.files().containsKey(p))
                .toList();
        WorkFiles files = code.misfit().isPresent()
                ? WorkFiles.none()
                : WorkFiles.ofBytes(copy.files()).without(removed).with(code.files());
        return new Laid(code, files, end);
    }
}
