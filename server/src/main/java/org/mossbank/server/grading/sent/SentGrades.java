package org.mossbank.server.grading.sent;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.persistence.EntityManager;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.UUID;
import org.hibernate.Session;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.springframework.stereotype.Component;

/**
 * Reads a study's grades, of which there may be hundreds of thousands: row by row without an object of the persistence
 * context each, and once for all figures that are made of the same ones.
 */
@Component
public class SentGrades {
    private static final int ROWS_AT_ONCE = 10_000;
    /** Together; a grade takes about 40 bytes. */
    private static final long MOST_GRADES_KEPT = 1_000_000;

    private static final String QUERY = """
            select s.rater_id, a.answer_id, g.criterion_id, g.level
            from sheet s join sheet_answer a on a.sheet_id = s.id join grade g on g.sheet_answer_id = a.id
            where s.study_id = ? and s.prompt_id = any (?) and s.repeat = ?
                and s.sent_at is not null and s.withdrawn_at is null and g.level is not null""";

    private record Key(StudyId study, boolean repeats) {}

    /** @param revision of the round, which counts up with everything that the grades hang on */
    private record Read(long revision, List<SentGrade> grades) {}

    private final RoundRepository rounds;
    private final EntityManager entities;
    private final Cache<Key, Read> kept = Caffeine.newBuilder()
            .maximumWeight(MOST_GRADES_KEPT)
            .<Key, Read>weigher((key, read) -> read.grades.size() + 1)
            .build();

    SentGrades(RoundRepository rounds, EntityManager entities) {
        this.rounds = rounds;
        this.entities = entities;
    }

    /**
     * On first sheets, or on repeats, that were sent in for sound prompts; not applicable ones and gaps are left out. By answer,
     * rater and criterion. Within the transaction of whoever asks.
     */
    public List<SentGrade> of(StudyId study, List<PromptId> sound, boolean repeats) {
        long revision = rounds.findById(study).map(Round::revision).orElse(0L);
        Key key = new Key(study, repeats);
        Read known = kept.getIfPresent(key);
        if (known != null && known.revision == revision) {
            return known.grades;
        }
        List<SentGrade> read =
                entities.unwrap(Session.class).doReturningWork(connection -> read(connection, study, sound, repeats));
        kept.put(key, new Read(revision, read));
        return read;
    }

    private static List<SentGrade> read(Connection connection, StudyId study, List<PromptId> sound, boolean repeats)
            throws SQLException {
        try (Statement room = connection.createStatement();
                PreparedStatement query = connection.prepareStatement(QUERY)) {
            // Else what hundreds of thousands of rows are joined with goes to the disk.
            room.execute("set local work_mem = '64MB'");
            query.setFetchSize(ROWS_AT_ONCE);
            query.setObject(1, study.value());
            query.setArray(
                    2,
                    connection.createArrayOf(
                            "uuid", sound.stream().map(PromptId::value).toArray(UUID[]::new)));
            query.setBoolean(3, repeats);
            try (ResultSet rows = query.executeQuery()) {
                return gather(rows);
            }
        }
    }

    private static List<SentGrade> gather(ResultSet rows) throws SQLException {
        GradesInOrder grades = new GradesInOrder();
        while (rows.next()) {
            grades.add(
                    rows.getObject(1, UUID.class),
                    rows.getObject(2, UUID.class),
                    rows.getObject(3, UUID.class),
                    rows.getInt(4));
        }
        return grades.snapshot();
    }
}
