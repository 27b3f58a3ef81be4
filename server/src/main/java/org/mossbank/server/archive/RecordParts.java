package org.mossbank.server.archive;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToIntFunction;
import org.mossbank.server.acts.ActRows;
import org.mossbank.server.acts.ActView;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.calibration.Calibrations;
import org.mossbank.server.calibration.rows.CalibrationRows;
import org.mossbank.server.calibration.rows.CalibrationTables;
import org.mossbank.server.calibration.rows.KeyedCalibration;
import org.mossbank.server.cost.Costs;
import org.mossbank.server.cost.StatedUseRows;
import org.mossbank.server.cost.TeamCostReport;
import org.mossbank.server.evidence.EvidenceRecords;
import org.mossbank.server.evidence.rows.EvidenceRows;
import org.mossbank.server.evidence.rows.KeyedEvidence;
import org.mossbank.server.expected.Expected;
import org.mossbank.server.expected.ExpectedRows;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.rows.KeyedSheet;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.Memos;
import org.mossbank.server.memo.rows.KeyedMemo;
import org.mossbank.server.memo.rows.MemoRows;
import org.mossbank.server.recommendation.LookRows;
import org.mossbank.server.recommendation.LookTaken;
import org.mossbank.server.recommendation.Looks;
import org.mossbank.server.reconciliation.Reconciliations;
import org.mossbank.server.reconciliation.rows.KeyedSplit;
import org.mossbank.server.reconciliation.rows.SplitReader;
import org.mossbank.server.reconciliation.rows.SplitRows;
import org.mossbank.server.rubric.AnchorProposals;
import org.mossbank.server.succession.Before;
import org.mossbank.server.succession.SuccessionRows;
import org.mossbank.server.succession.Successions;
import org.mossbank.server.turn.TurnRows;
import org.mossbank.server.turn.Turns;
import org.springframework.stereotype.Component;

/** A study's round with its sheets, and what was done and seen on the way. */
@Component
class RecordParts {
    private final Grading grading;
    private final Acts acts;
    private final Looks looks;
    private final Reconciliations reconciliations;
    private final Calibrations calibrations;
    private final AnchorProposals proposals;
    private final Memos memos;
    private final AsideParts asides;

    RecordParts(
            Grading grading,
            Acts acts,
            Looks looks,
            Reconciliations reconciliations,
            Calibrations calibrations,
            AnchorProposals proposals,
            Memos memos,
            AsideParts asides) {
        this.asides = asides;
        this.memos = memos;
        this.proposals = proposals;
        this.calibrations = calibrations;
        this.reconciliations = reconciliations;
        this.grading = grading;
        this.acts = acts;
        this.looks = looks;
    }

    /** Looks and acts oldest first, splits by answer and criterion. */
    record Kept(
            List<LookTaken> looks,
            List<ActView> acts,
            List<KeyedSplit> splits,
            List<KeyedCalibration> calibrations,
            List<AnchorProposals.ProposalRow> proposals,
            List<KeyedMemo> memos,
            AsideParts.Asides asides) {
        /** Of a study that begins, with checks of its prompts. */
        static Kept begun(Before before, KeyedEvidence checks) {
            return of(Optional.of(before), checks);
        }

        /** Of a study that begins and follows none. */
        static Kept copied(KeyedEvidence checks) {
            return of(Optional.empty(), checks);
        }

        private static Kept of(Optional<Before> before, KeyedEvidence checks) {
            return new Kept(
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    new AsideParts.Asides(
                            Optional.empty(), List.of(), before, new ExpectedRows.Keyed(List.of(), Map.of()), checks));
        }

        /** The same without what rests on all of it. */
        Kept withoutMemos() {
            return new Kept(looks, acts, splits, calibrations, proposals, List.of(), asides);
        }

        /**
         * @param most     looks that the brief allows
         * @param basis     what calibrations are about
         * @param answers   what there is to say something of
         */
        static Kept read(Tables tables, int most, CalibrationTables.Basis basis, Answered answers) {
            return new Kept(
                    LookRows.read(tables, most),
                    ActRows.read(tables),
                    SplitReader.read(tables, basis.criteria()),
                    CalibrationTables.read(tables, basis),
                    AnchorProposals.read(tables),
                    MemoRows.read(tables),
                    AsideParts.Asides.read(tables, answers));
        }

        void write(WrittenFiles out) {
            LookRows.write(looks, out);
            ActRows.write(acts, out);
            splits.forEach(s -> SplitRows.write(s, out));
            calibrations.forEach(c -> CalibrationRows.write(c, out));
            AnchorProposals.write(proposals, out);
            memos.forEach(m -> MemoRows.write(m, out));
            asides.write(out);
        }
    }

    /**
     * Answers that something is said of.
     *
     * @param followUps how many an answer has, by its key
     * @param promptOf  its prompt, by its key
     */
    record Answered(ToIntFunction<String> followUps, Map<String, String> promptOf) {}

    /** Absent before it was opened. */
    Optional<StudyArchive.RoundHead> round(StudyId study) {
        return grading.round(study)
                .map(r -> new StudyArchive.RoundHead(
                        r.openedAt(), r.closedAt(), r.namesOpenedAt(), r.ratersAnAnswer(), r.repeatShare()));
    }

    List<KeyedSheet> sheets(StudyId study, Keys keys) {
        return grading.records(study).stream()
                .map(s -> KeyedSheet.of(s, keys))
                .sorted(Comparator.comparing(KeyedSheet::rater).thenComparingInt(KeyedSheet::place))
                .toList();
    }

    /** @param versions of the rubric that the archive holds */
    Kept of(StudyId study, Keys keys, Set<Integer> versions) {
        return new Kept(
                looks.ofStudy(study),
                acts.ofStudy(study),
                reconciliations.ofStudy(study).stream()
                        .map(s -> KeyedSplit.of(s, keys))
                        .sorted(Comparator.comparing(KeyedSplit::answer).thenComparing(KeyedSplit::criterion))
                        .toList(),
                calibrations.ofStudy(study).stream()
                        .map(c -> KeyedCalibration.of(c, keys))
                        .toList(),
                proposals.ofStudy(study, keys, versions),
                memos.ofStudy(study, keys),
                asides.of(study, keys));
    }

    void restore(StudyId study, Kept kept, NewIds ids, AccountId lead) {
        calibrations.restore(
                study, kept.calibrations().stream().map(c -> c.kept(ids, lead)).toList());
        proposals.restore(study, kept.proposals(), ids);
        reconciliations.restore(
                study, kept.splits().stream().map(s -> s.kept(ids, lead)).toList());
        looks.restore(study, kept.looks());
        acts.restore(study, kept.acts());
        memos.restore(study, kept.memos(), ids);
        asides.restore(study, kept.asides(), ids, lead);
    }

    /** What is said of a study beside its grades, and decides nothing. */
    @Component
    static class AsideParts {
        private final Costs costs;
        private final Turns turns;
        private final Successions successions;
        private final Expected expected;
        private final EvidenceRecords evidence;

        AsideParts(Costs costs, Turns turns, Successions successions, Expected expected, EvidenceRecords evidence) {
            this.evidence = evidence;
            this.expected = expected;
            this.successions = successions;
            this.costs = costs;
            this.turns = turns;
        }

        /**
         * @param use   how the team would use what it chooses
         * @param turns  what was found of replies, by answer and turn
         * @param before the study that this one follows
         * @param expected claims, and whom people's words are taken for
         * @param evidence checks, trials, and what people tried of their own
         */
        record Asides(
                Optional<TeamCostReport.StatedUseView> use,
                List<TurnRows.KeyedVerdict> turns,
                Optional<Before> before,
                ExpectedRows.Keyed expected,
                KeyedEvidence evidence) {
            static Asides read(Tables tables, Answered answers) {
                return new Asides(
                        StatedUseRows.read(tables),
                        TurnRows.read(tables, answers.followUps),
                        SuccessionRows.read(tables),
                        ExpectedRows.read(tables),
                        EvidenceRows.read(tables, answers.followUps, answers.promptOf));
            }

            void write(WrittenFiles out) {
                StatedUseRows.write(use.orElse(null), out);
                turns.forEach(t -> TurnRows.write(t, out));
                SuccessionRows.write(before.orElse(null), out);
                ExpectedRows.write(expected, out);
                EvidenceRows.write(evidence, out);
            }
        }

        Asides of(StudyId study, Keys keys) {
            return new Asides(
                    costs.statedUse(study),
                    turns.ofStudy(study).stream()
                            .map(t -> TurnRows.KeyedVerdict.of(t, keys))
                            .sorted(Comparator.comparing(TurnRows.KeyedVerdict::answer)
                                    .thenComparingInt(TurnRows.KeyedVerdict::turn))
                            .toList(),
                    successions.handedOut(study, keys),
                    ExpectedRows.Keyed.of(expected.claims(study), expected.matches(study), keys),
                    KeyedEvidence.of(evidence.ofStudy(study), keys));
        }

        void restore(StudyId study, Asides asides, NewIds ids, AccountId lead) {
            asides.use.ifPresent(u -> costs.restore(study, u));
            asides.before.ifPresent(b -> successions.restore(study, b));
            expected.restore(study, asides.expected.claims(ids), asides.expected.matches(ids));
            evidence.restore(study, asides.evidence.kept(ids, lead));
            turns.restore(study, asides.turns.stream().map(t -> t.kept(ids)).toList());
        }
    }
}
