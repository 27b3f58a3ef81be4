package org.mossbank.server.turn;

import java.util.List;
import java.util.Optional;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface TurnSaidRepository extends Repository<TurnSaid, TurnSaid.Key> {
    @Query("select t from TurnSaid t where t.studyId = :study order by t.key.answerId, t.key.turn")
    List<TurnSaid> ofStudy(StudyId study);

    @Query("select t from TurnSaid t where t.key.answerId = :answer order by t.key.turn")
    List<TurnSaid> ofAnswer(AnswerId answer);

    Optional<TurnSaid> findById(TurnSaid.Key key);

    void delete(TurnSaid said);
}
