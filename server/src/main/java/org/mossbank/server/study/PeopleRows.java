package org.mossbank.server.study;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.study.people.OwnExpectations;
import org.mossbank.server.study.people.PeopleService;

/** Who grades and what they expected, as rows of the open format. */
public final class PeopleRows {
    @TableForm(name = "raters", meaning = "Who grades. A rater without an account gets a one-time link.", key = "rater")
    record RaterRow(
            @Column(value = "Sign-in name", key = true) @Pattern(regexp = Accounts.SIGN_IN_NAME)
            String rater,

            @Column("Name as shown") @As(PeopleService.AddRater.class) @NotNull
            String name,

            @Column("true if this is the lead, who graded as blind as the others; in a closed study only")
            boolean lead) {}

    @TableForm(name = "expectations", meaning = "What people expected before they saw anything.", key = "rater")
    record ExpectationRow(
            @Column(value = "Key of the rater; empty for the lead", in = "raters.rater") @Nullable
            String rater,

            @Column("Who they thought would win; may be empty") @As(OwnExpectations.Declare.class)
            String expects,

            @Column("What they used at the time; may be empty") @As(OwnExpectations.Declare.class)
            String usesToday,

            @Column("When, ISO 8601 with zone") @NotNull Instant declaredAt) {}

    public static final Table<RaterRow> RATERS = Table.of(RaterRow.class);
    private static final Table<ExpectationRow> EXPECTATIONS = Table.of(ExpectationRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = List.of(RATERS, EXPECTATIONS);

    private PeopleRows() {}

    /** People by their sign-in names. */
    public record KeyedPeople(List<KeyedRater> raters, List<KeyedExpectation> expectations) {
        /** Whether the lead graded, as blind as the others. */
        public boolean leadGraded() {
            return raters.stream().anyMatch(KeyedRater::lead);
        }
    }

    /** @param lead whether this is the lead, who graded as blind as the others */
    public record KeyedRater(String signInName, String name, boolean lead) {}

    /** @param rater sign-in name; absent for the lead */
    public record KeyedExpectation(@Nullable String rater, String expects, String usesToday, Instant declaredAt) {}

    /** @param closed whether the round is over; only then may the lead be one of the raters */
    public static KeyedPeople read(Tables tables, boolean closed) {
        List<KeyedRater> raters = new ArrayList<>();
        for (Line<RaterRow> line : tables.lines(RATERS)) {
            RaterRow row = line.row();
            if (row.lead() && (!closed || raters.stream().anyMatch(KeyedRater::lead))) {
                tables.faults()
                        .add(line.at(), "lead", "one lead at most, and only in a study whose round is closed", "true");
            }
            raters.add(new KeyedRater(row.rater(), row.name(), row.lead()));
        }
        return new KeyedPeople(
                raters,
                tables.lines(EXPECTATIONS).stream()
                        .map(Line::row)
                        .map(r -> new KeyedExpectation(r.rater(), r.expects(), r.usesToday(), r.declaredAt()))
                        .toList());
    }

    public static void write(KeyedPeople people, WrittenFiles out) {
        people.raters().forEach(r -> out.add(RATERS, new RaterRow(r.signInName(), r.name(), r.lead())));
        people.expectations()
                .forEach(e -> out.add(
                        EXPECTATIONS, new ExpectationRow(e.rater(), e.expects(), e.usesToday(), e.declaredAt())));
    }
}
