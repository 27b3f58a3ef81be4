package org.mossbank.server.expected;

import java.util.List;
import java.util.Optional;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface WordsTakenRepository extends Repository<WordsTaken, WordsTaken.Key> {
    @Query("select m from WordsTaken m where m.key.studyId = :study")
    List<WordsTaken> ofStudy(StudyId study);

    Optional<WordsTaken> findById(WordsTaken.Key key);

    void delete(WordsTaken match);
}
