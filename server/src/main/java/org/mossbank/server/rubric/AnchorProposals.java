package org.mossbank.server.rubric;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Proposals for anchors, for the archive. */
@Service
@Transactional(readOnly = true)
public class AnchorProposals {
    /** A row of the open format. */
    @TableForm(
            name = "anchor-proposals",
            meaning = "Other wordings of anchors that somebody proposed for the rubric's next version, oldest first.")
    public record ProposalRow(
            @Column("Key of the criterion") @NotNull @Size(min = 1, max = 80)
            String criterion,

            @Column(value = "The kind of prompt that the anchor is for", in = "kinds.kind") @NotNull
            String kind,

            @Column("The level, from 0") @Min(0) @Max(CriterionContent.HIGHEST_LEVEL)
            int level,

            @Column("What the anchor should say") @NotNull @Size(min = 1, max = 1000)
            String words,

            @Column("Why") @Size(max = 1000) String why,

            @Column("Name of who proposed it") @NotNull @Size(min = 1, max = 200)
            String proposedBy,

            @Column("When, ISO 8601 with zone") @NotNull Instant proposedAt,

            @Column("What became of it") AnchorProposal.@NotNull State state,

            @Column("Name of who decided on it; empty while it waits") @Size(max = 200) @Nullable
            String decidedBy,

            @Column("When, ISO 8601 with zone; empty while it waits") @Nullable
            Instant decidedAt,

            @Column("The version of the rubric that it came into; empty unless it was taken") @Min(1) @Nullable
            Integer rubricVersion) {}

    private static final Table<ProposalRow> PROPOSALS = Table.of(ProposalRow.class);

    public static final List<Table<?>> TABLES = List.of(PROPOSALS);

    private final AnchorProposalRepository proposals;
    private final EntityManager entities;

    AnchorProposals(AnchorProposalRepository proposals, EntityManager entities) {
        this.proposals = proposals;
        this.entities = entities;
    }

    /** @param versions that go with them: what was taken into another, a draft, waits again */
    @SystemOnly
    public List<ProposalRow> ofStudy(StudyId study, Keys keys, Set<Integer> versions) {
        return proposals.findByStudyIdOrderByProposedAt(study).stream()
                .map(p -> row(p, keys, versions))
                .toList();
    }

    private static ProposalRow row(AnchorProposal one, Keys keys, Set<Integer> versions) {
        AnchorProposal.Proposed proposed = one.proposed();
        AnchorProposal.Decision decision = one.decision();
        Integer version = decision == null ? null : decision.version();
        boolean waits = decision == null || version != null && !versions.contains(version);
        return new ProposalRow(
                proposed.criterion(),
                keys.of(proposed.kindId()),
                proposed.level(),
                proposed.words(),
                proposed.why(),
                proposed.by(),
                proposed.at(),
                waits ? AnchorProposal.State.WAITING : one.state(),
                waits || decision == null ? null : decision.by(),
                waits || decision == null ? null : decision.at(),
                waits ? null : version);
    }

    public static List<ProposalRow> read(Tables tables) {
        for (Line<ProposalRow> line : tables.lines(PROPOSALS)) {
            ProposalRow row = line.row();
            boolean waits = row.state() == AnchorProposal.State.WAITING;
            boolean taken = row.state() == AnchorProposal.State.TAKEN;
            if (waits != (row.decidedBy() == null) || waits != (row.decidedAt() == null)) {
                tables.faults()
                        .add(
                                line.at(),
                                "decided_at",
                                "with decided_by if and only if somebody decided on it",
                                line.at().textOrNull("decided_at"));
            }
            if (taken != (row.rubricVersion() != null)) {
                tables.faults()
                        .add(
                                line.at(),
                                "rubric_version",
                                "a version if and only if it was taken",
                                line.at().textOrNull("rubric_version"));
            }
        }
        return tables.lines(PROPOSALS).stream().map(Line::row).toList();
    }

    public static void write(List<ProposalRow> rows, WrittenFiles out) {
        rows.forEach(r -> out.add(PROPOSALS, r));
    }

    /** As an archive brings them. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, List<ProposalRow> rows, NewIds ids) {
        for (ProposalRow row : rows) {
            AnchorProposal proposal = AnchorProposal.of(
                    UUID.randomUUID(),
                    study,
                    new AnchorProposal.Proposed(
                            row.criterion(),
                            Require.known(ids.kinds(), row.kind()),
                            row.level(),
                            row.words(),
                            row.why(),
                            row.proposedBy(),
                            row.proposedAt()));
            if (row.decidedBy() != null && row.decidedAt() != null) {
                proposal.decide(new AnchorProposal.Decision(row.decidedBy(), row.decidedAt(), row.rubricVersion()));
            }
            entities.persist(proposal);
        }
    }
}
