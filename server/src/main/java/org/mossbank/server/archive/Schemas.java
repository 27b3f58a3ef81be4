package org.mossbank.server.archive;

import com.networknt.schema.Schema;
import java.util.List;
import java.util.stream.Stream;
import org.mossbank.server.acts.ActRows;
import org.mossbank.server.answer.AnswerRows;
import org.mossbank.server.calibration.rows.CalibrationRows;
import org.mossbank.server.candidate.CandidateRows;
import org.mossbank.server.cost.StatedUseRows;
import org.mossbank.server.evidence.rows.EvidenceRows;
import org.mossbank.server.expected.ExpectedRows;
import org.mossbank.server.files.JsonFile;
import org.mossbank.server.files.Table;
import org.mossbank.server.grading.rows.SheetRows;
import org.mossbank.server.masking.MaskRows;
import org.mossbank.server.memo.rows.MemoRows;
import org.mossbank.server.prompt.PromptRows;
import org.mossbank.server.readback.ReadBackRows;
import org.mossbank.server.recommendation.LookRows;
import org.mossbank.server.reconciliation.rows.SplitRows;
import org.mossbank.server.rubric.AnchorProposals;
import org.mossbank.server.rubric.RubricHistory;
import org.mossbank.server.rubric.RubricRows;
import org.mossbank.server.run.RunRows;
import org.mossbank.server.source.SourceRows;
import org.mossbank.server.study.PeopleRows;
import org.mossbank.server.succession.SuccessionRows;
import org.mossbank.server.turn.TurnRows;

/** What an archive can hold. Each part of the job owns its tables; here they come together. */
final class Schemas {
    /** Tables of an archive, in the order in which they are written. */
    static final List<Table<?>> TABLES = Stream.of(
                    PromptRows.TABLES,
                    CandidateRows.TABLES,
                    SourceRows.TABLES,
                    AnswerRows.TABLES,
                    RunRows.TABLES,
                    MaskRows.TABLES,
                    RubricRows.TABLES,
                    AnchorProposals.TABLES,
                    PeopleRows.TABLES,
                    ReadBackRows.TABLES,
                    CalibrationRows.TABLES,
                    SheetRows.TABLES,
                    SplitRows.TABLES,
                    LookRows.TABLES,
                    ActRows.TABLES,
                    MemoRows.TABLES,
                    StatedUseRows.TABLES,
                    TurnRows.TABLES,
                    EvidenceRows.TABLES,
                    SuccessionRows.TABLES,
                    ExpectedRows.TABLES)
            .<Table<?>>flatMap(List::stream)
            .toList();

    static final List<Table<?>> REQUIRED_TABLES = List.of(
            PromptRows.KINDS,
            PromptRows.PROMPTS,
            CandidateRows.CANDIDATES,
            AnswerRows.ANSWERS,
            RubricRows.CRITERIA,
            PeopleRows.RATERS);

    /** What a study must at least have while it is being prepared. */
    static final List<Table<?>> TABLES_WHILE_PREPARING = List.of(PromptRows.KINDS);

    static final String STUDY = "study";

    /** Everything that an archive can name. */
    static final List<String> RESOURCES = Stream.concat(
                    Stream.of(STUDY, RubricHistory.NAME), TABLES.stream().map(Table::name))
            .toList();

    static final Schema PACKAGE_FILE = JsonFile.schema("datapackage");
    static final Schema STUDY_FILE = JsonFile.schema(STUDY);

    private Schemas() {}
}
