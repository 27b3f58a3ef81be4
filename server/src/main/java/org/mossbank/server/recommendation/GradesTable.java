package org.mossbank.server.recommendation;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.reconciliation.Splits;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** All grades of a study that count, and those given a second time, as one long table, by keys that an archive has too. */
@Component
class GradesTable {
    private static final String[] HEAD = {
        "study",
        "round",
        "prompt",
        "kind",
        "candidate",
        "answer",
        "criterion",
        "rater",
        "level",
        "highest_level",
        "original",
        "settled",
        "sent_at"
    };

    private final RecommendationBasis basis;
    private final Grading grading;
    private final Snapshot snapshot;
    private final StudyPeople people;

    GradesTable(RecommendationBasis basis, Grading grading, Snapshot snapshot, StudyPeople people) {
        this.people = people;
        this.basis = basis;
        this.grading = grading;
        this.snapshot = snapshot;
    }

    /** As it stood at one moment; nothing is read any more when it is written. */
    Rows of(StudyId study) {
        return snapshot.of(() -> {
            RecommendationData data = basis.of(study);
            Map<Where, Instant> sent = new HashMap<>();
            grading.sentPlaces(study).forEach(p -> sent.put(new Where(p.raterId(), p.answerId()), p.sentAt()));
            return new Rows(
                    data,
                    grading.repeatGrades(study),
                    sent,
                    people.keys(study, data.raters().keySet()));
        });
    }

    private record Where(AccountId rater, AnswerId answer) {}

    /** The table, ready to be written. */
    static final class Rows {
        private final RecommendationData data;
        private final List<SentGrade> repeats;
        private final Map<Where, Instant> sent;
        private final Map<AccountId, String> raterKeys;
        private final Map<CriterionId, CriterionView> criteria;
        private final Map<CandidateId, String> candidates;
        private final Map<Splits.Place, Double> settled;

        private Rows(
                RecommendationData data,
                List<SentGrade> repeats,
                Map<Where, Instant> sent,
                Map<AccountId, String> raterKeys) {
            this.raterKeys = raterKeys;
            this.data = data;
            this.repeats = repeats;
            this.sent = sent;
            this.criteria = data.criteria().stream().collect(Collectors.toMap(CriterionView::id, Function.identity()));
            this.settled = data.settledLevels();
            this.candidates =
                    data.candidates().stream().collect(Collectors.toMap(CandidateView::id, CandidateView::key));
        }

        /** CSV (RFC 4180) in UTF-8. */
        void write(OutputStream out) {
            try (CSVPrinter rows = new CSVPrinter(
                    new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8)), CSVFormat.RFC4180)) {
                rows.printRecord((Object[]) HEAD);
                for (SentGrade grade : data.grades()) {
                    print(rows, grade, "main", sent.get(new Where(grade.raterId(), grade.answerId())));
                }
                for (SentGrade grade : repeats) {
                    print(rows, grade, "repeat", null);
                }
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        private void print(CSVPrinter rows, SentGrade grade, String round, @Nullable Instant at) throws IOException {
            AnswerFacts answer = data.answers().get(grade.answerId());
            if (answer == null) {
                return;
            }
            PromptView prompt = Require.known(data.prompts(), answer.promptId());
            CriterionView criterion = Require.known(criteria, grade.criterionId());
            Double level = settled.get(new Splits.Place(grade.answerId(), grade.criterionId()));
            rows.printRecord(
                    data.study().title(),
                    round,
                    prompt.key(),
                    prompt.kind().key(),
                    Require.known(candidates, answer.candidateId()),
                    answer.key(),
                    criterion.key(),
                    Require.known(raterKeys, grade.raterId()),
                    grade.level(),
                    criterion.highestLevel(),
                    grade.level(),
                    level == null ? "" : level,
                    at == null ? "" : at);
        }
    }
}
