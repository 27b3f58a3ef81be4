package org.mossbank.server.expected;

import jakarta.validation.constraints.NotNull;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;

/** Claims, and whom people's words are taken for, as tables of the open format. */
public final class ExpectedRows {
    @TableForm(name = "claims", meaning = "Figures that others published of candidates, in order.")
    record ClaimRow(
            @Column(value = "The candidate", in = "candidates.candidate") @NotNull
            String candidate,

            @Column("What was measured") @As(ClaimContent.class) @NotNull
            String measure,

            @Column("The figure, in the measure's own unit") @As(ClaimContent.class) @NotNull
            Double value,

            @Column("true if more is better") boolean higherIsBetter,

            @Column("Where it stands") @As(ClaimContent.class) @NotNull
            String source,

            @Column("The day on which it stood there, such as 2026-03-01") @Nullable
            LocalDate asOf) {}

    @TableForm(
            name = "expectation-matches",
            meaning = "Which candidate a lead takes somebody's words for, said once grading had ended.",
            key = "rater")
    record MatchRow(
            @Column(value = "Key of the rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The candidate", in = "candidates.candidate") @NotNull
            String candidate) {}

    private static final Table<ClaimRow> CLAIMS = Table.of(ClaimRow.class);
    private static final Table<MatchRow> MATCHES = Table.of(MatchRow.class);

    public static final List<Table<?>> TABLES = List.of(CLAIMS, MATCHES);

    private ExpectedRows() {}

    /** With candidates and people by their keys. */
    public record Keyed(List<KeyedClaim> claims, Map<String, String> matches) {
        public static Keyed of(List<ClaimContent> claims, Map<AccountId, CandidateId> matches, Keys keys) {
            Map<String, String> words = new HashMap<>();
            matches.forEach((account, candidate) -> {
                // Who does not grade has no key.
                String key = keys.orNone(account);
                if (key != null) {
                    words.put(key, keys.of(candidate));
                }
            });
            return new Keyed(
                    claims.stream()
                            .map(c -> new KeyedClaim(keys.of(c.candidateId()), c))
                            .toList(),
                    words);
        }

        public List<ClaimContent> claims(NewIds ids) {
            return claims.stream()
                    .map(c -> c.content.of(Require.known(ids.candidates(), c.candidate)))
                    .toList();
        }

        public Map<AccountId, CandidateId> matches(NewIds ids) {
            Map<AccountId, CandidateId> words = new HashMap<>();
            matches.forEach((rater, candidate) ->
                    words.put(Require.known(ids.people(), rater), Require.known(ids.candidates(), candidate)));
            return words;
        }
    }

    /** @param content with whatever candidate; the key says which */
    public record KeyedClaim(String candidate, ClaimContent content) {}

    public static Keyed read(Tables tables) {
        Map<String, String> matches = new HashMap<>();
        tables.lines(MATCHES).forEach(l -> matches.put(l.row().rater(), l.row().candidate()));
        return new Keyed(
                tables.lines(CLAIMS).stream()
                        .map(Line::row)
                        .map(r -> new KeyedClaim(
                                r.candidate(),
                                new ClaimContent(
                                        CandidateId.random(),
                                        r.measure(),
                                        r.value(),
                                        r.higherIsBetter(),
                                        r.source(),
                                        r.asOf())))
                        .toList(),
                matches);
    }

    public static void write(Keyed keyed, WrittenFiles out) {
        for (KeyedClaim claim : keyed.claims) {
            ClaimContent c = claim.content;
            out.add(
                    CLAIMS,
                    new ClaimRow(claim.candidate, c.measure(), c.value(), c.higherIsBetter(), c.source(), c.asOf()));
        }
        keyed.matches.entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .forEach(e -> out.add(MATCHES, new MatchRow(e.getKey(), e.getValue())));
    }
}
