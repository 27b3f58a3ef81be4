package org.mossbank.server.masking;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.List;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.mossbank.server.ids.StudyId;

/** The words that a study's lead lists. Whoever decides on masks locks it, so that two windows take turns. */
@Entity
@Table(name = "masking")
class MaskingOfStudy {
    @Id
    private StudyId studyId;

    @JdbcTypeCode(SqlTypes.ARRAY)
    private String[] words;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected MaskingOfStudy() {}

    static MaskingOfStudy of(StudyId study, List<String> words) {
        MaskingOfStudy masking = new MaskingOfStudy();
        masking.studyId = study;
        masking.write(words);
        return masking;
    }

    void write(List<String> newWords) {
        words = newWords.toArray(String[]::new);
    }

    List<String> words() {
        return List.of(words);
    }

    long version() {
        return version;
    }
}
