package org.mossbank.commands.decide;

import java.io.IOException;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.comparison.WithBest;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.decision.Finding;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Resamples;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Prints everything that decides a study as JSON: of one file of grades over several lines, of each file in a folder on a line of
 * its own.
 */
public final class Decide {
    private static final double LEVEL = 0.95;
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();

    private Decide() {}

    /** @param arguments the rule, and the grades or a folder of such */
    public static void main(String[] arguments) throws IOException {
        PrintStream out = new PrintStream(System.out, false, StandardCharsets.UTF_8);
        Rule rule = MAPPER.readValue(Files.readString(Path.of(arguments[0])), Rule.class);
        Path grades = Path.of(arguments[1]);
        if (Files.isDirectory(grades)) {
            for (ObjectNode study : ofFolder(rule, grades)) {
                out.println(MAPPER.writeValueAsString(study));
            }
        } else {
            out.println(MAPPER.writerWithDefaultPrettyPrinter().writeValueAsString(of(rule, grades)));
        }
        out.flush();
    }

    private static List<ObjectNode> ofFolder(Rule rule, Path folder) throws IOException {
        List<Path> files;
        try (Stream<Path> all = Files.list(folder)) {
            files = all.filter(f -> f.toString().endsWith(".csv")).sorted().toList();
        }
        return files.parallelStream()
                .map(file -> {
                    try {
                        return of(rule, file);
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                })
                .toList();
    }

    /** @throws IOException if the file cannot be read as a table */
    static ObjectNode of(Rule rule, Path file) throws IOException {
        Grades grades = Grades.from(file);
        Standings standings = Standings.of(
                grades.cells(rule), grades.groups(), new Standings.Options(0, LEVEL), Resamples.generator(0));
        List<Evidence.CriterionAgreement> agreement = grades.agreement(rule);
        // Nothing is said within kinds unless the rule tells them apart.
        List<Evidence.WithinKind> kinds = rule.decisionRule().allowance().kinds() == 0
                ? List.of()
                : grades.kinds().stream()
                        .map(k -> new Evidence.WithinKind(k, withinKind(grades, rule, k)))
                        .toList();
        Evidence evidence = new Evidence(
                Evidence.State.CLEAR,
                grades.raters(),
                agreement,
                standings,
                standings.standings().stream()
                        .map(s -> new Evidence.Contender(s.candidate(), OptionalDouble.empty()))
                        .toList(),
                kinds);
        Decision decision = Decision.of(rule.decisionRule(), evidence);
        ObjectNode json = MAPPER.createObjectNode();
        json.put("study", String.valueOf(file.getFileName()));
        json.put("outcome", decision.outcome().name());
        json.put("leader", decision.leader().orElse(null));
        json.put("allowance", rule.decisionRule().allowance().overall());
        json.put("allowanceOfKinds", rule.decisionRule().allowance().kinds());
        ArrayNode findings = json.putArray("findings");
        decision.findings().forEach(f -> findings.add(finding(f)));
        ArrayNode field = json.putArray("field");
        decision.field().map(WithBest::candidates).orElse(List.of()).forEach(c -> field.add(candidate(c, rule)));
        ArrayNode all = json.putArray("standings");
        standings.standings().forEach(s -> all.add(standing(s)));
        ArrayNode pairs = json.putArray("differences");
        standings.differences().forEach(d -> {
            ObjectNode pair = pairs.addObject();
            pair.put("higher", d.higher());
            pair.put("lower", d.lower());
            number(pair, "estimate", d.estimate());
            number(pair, "standardError", d.standardError());
            pair.put("freedom", d.freedom());
            interval(pair, "", d.interval());
            interval(pair, "holm", d.adjustedInterval());
            number(pair, "holmP", d.adjustedP());
            interval(pair, "here", d.here());
        });
        ArrayNode coefficients = json.putArray("agreement");
        agreement.forEach(a -> {
            ObjectNode one = coefficients.addObject();
            one.put("criterion", a.criterion());
            number(one, "value", a.coefficient());
            interval(one, "", a.interval());
        });
        return json;
    }

    private static Standings withinKind(Grades grades, Rule rule, String kind) {
        PromptGroups groups = grades.groups();
        return Standings.of(
                grades.cells(rule).stream()
                        .filter(c -> groups.kindOf().apply(c.prompt()).equals(kind))
                        .toList(),
                groups,
                new Standings.Options(0, LEVEL),
                Resamples.generator(0));
    }

    /** Its sort, with all that it holds but differences, which stand beside. */
    private static ObjectNode finding(Finding finding) {
        ObjectNode json = MAPPER.createObjectNode();
        json.put("type", finding.getClass().getSimpleName());
        for (var part : finding.getClass().getRecordComponents()) {
            try {
                Object value = part.getAccessor().invoke(finding);
                if (value instanceof org.mossbank.core.comparison.Difference d) {
                    json.put("higher", d.higher()).put("lower", d.lower());
                } else {
                    json.set(part.getName(), MAPPER.valueToTree(value));
                }
            } catch (ReflectiveOperationException e) {
                throw new IllegalStateException("a record's part cannot be read", e);
            }
        }
        return json;
    }

    private static ObjectNode candidate(WithBest.Candidate candidate, Rule rule) {
        ObjectNode json = MAPPER.createObjectNode();
        json.put("candidate", candidate.name());
        json.put("best", candidate.best());
        json.put(
                "safe", !candidate.out() && candidate.isSafe(rule.decisionRule().margin()));
        json.put("out", candidate.out());
        json.put("outBy", candidate.out() ? candidate.outBy() : null);
        json.put("shortfall", nullable(candidate.shortfall()));
        return json;
    }

    private static ObjectNode standing(Standing standing) {
        ObjectNode json = MAPPER.createObjectNode();
        json.put("candidate", standing.candidate());
        number(json, "adjusted", standing.adjusted());
        interval(json, "", standing.interval());
        number(json, "plain", standing.plain());
        json.put("cells", standing.cells());
        return json;
    }

    private static void number(ObjectNode json, String name, Estimate estimate) {
        json.put(name, nullable(estimate.value()));
        if (estimate instanceof Estimate.Undefined none) {
            json.put(name + "Undefined", none.reason().name());
        }
    }

    private static @Nullable Double nullable(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }

    private static void interval(ObjectNode json, String prefix, Interval interval) {
        String low = prefix.isEmpty() ? "low" : prefix + "Low";
        String high = prefix.isEmpty() ? "high" : prefix + "High";
        if (interval instanceof Interval.Bounds bounds) {
            json.put(low, bounds.low());
            json.put(high, bounds.high());
        } else {
            json.putNull(low);
            json.putNull(high);
        }
    }
}
