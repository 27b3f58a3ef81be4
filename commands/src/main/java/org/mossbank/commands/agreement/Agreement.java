package org.mossbank.commands.agreement;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.table.TableAgreement;
import org.mossbank.core.table.TableScale;
import org.mossbank.core.table.ValueTable;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Prints as JSON how far raters agree in a table, or what is wrong with the table. */
public final class Agreement {
    private static final JsonMapper MAPPER = JsonMapper.shared();

    private Agreement() {}

    /** @param arguments a CSV file, and its scale: nominal, ordinal or interval */
    public static void main(String[] arguments) throws IOException {
        PrintStream out = new PrintStream(System.out, false, StandardCharsets.UTF_8);
        TableScale scale = TableScale.valueOf(arguments[1].toUpperCase(Locale.ROOT));
        out.println(MAPPER.writerWithDefaultPrettyPrinter().writeValueAsString(of(Path.of(arguments[0]), scale)));
        out.flush();
    }

    /** @throws IOException if the file cannot be read as UTF-8 */
    static ObjectNode of(Path file, TableScale scale) throws IOException {
        ValueTable table = ValueTable.parse(Files.readString(file));
        ObjectNode json = MAPPER.createObjectNode();
        json.put("table", String.valueOf(file.getFileName()));
        json.put("scale", scale.name().toLowerCase(Locale.ROOT));
        if (!table.faults().isEmpty()) {
            faults(json, table.faults());
            return json;
        }
        try {
            write(json, TableAgreement.of(table, scale));
        } catch (TableAgreement.NotOfScale e) {
            faults(json, List.of(new ValueTable.TableFault(0, String.valueOf(e.getMessage()), "")));
        }
        return json;
    }

    private static void faults(ObjectNode json, List<ValueTable.TableFault> faults) {
        ArrayNode all = json.putArray("faults");
        faults.forEach(f -> all.addObject()
                .put("line", f.line())
                .put("expected", f.expected())
                .put("found", f.found()));
    }

    private static void write(ObjectNode json, TableAgreement found) {
        json.put("units", found.units());
        json.put("values", found.values());
        found.raters().forEach(json.putArray("raters")::add);
        found.levels().forEach(json.putArray("levels")::add);
        ArrayNode coefficients = json.putArray("coefficients");
        found.coefficients().forEach(c -> {
            ObjectNode one = coefficients.addObject();
            one.put("name", c.name().name().toLowerCase(Locale.ROOT).replace('_', '-'));
            number(one, "value", c.value());
            interval(one, c.interval());
        });
        ArrayNode pairs = json.putArray("pairs");
        found.pairs().forEach(p -> {
            ObjectNode one = pairs.addObject();
            one.put("first", p.first()).put("second", p.second()).put("units", p.units());
            number(one, "kappa", p.kappa());
            number(one, "linear", p.linear());
            number(one, "quadratic", p.quadratic());
        });
        ArrayNode severities = json.putArray("severities");
        found.severities().forEach(s -> {
            ObjectNode one = severities.addObject();
            one.put("rater", s.rater()).put("values", s.grades()).put("shareAtEnds", s.shareAtEnds());
            number(one, "severity", s.severity());
            interval(one, s.interval());
        });
        json.put("splitCount", found.splitCount());
        ArrayNode splits = json.putArray("splits");
        found.splits().forEach(s -> {
            ObjectNode one = splits.addObject();
            one.put("unit", s.unit()).put("distance", s.distance());
            ObjectNode given = one.putObject("values");
            s.ratings().forEach(r -> given.put(r.rater(), found.levels().get(r.category())));
        });
    }

    private static void number(ObjectNode json, String name, Estimate estimate) {
        if (estimate instanceof Estimate.Undefined none) {
            json.put(name + "Undefined", none.reason().words());
        } else {
            json.put(name, estimate.value().orElseThrow());
        }
    }

    private static void interval(ObjectNode json, Interval interval) {
        if (interval instanceof Interval.Bounds bounds) {
            json.put("low", bounds.low()).put("high", bounds.high());
        }
    }
}
