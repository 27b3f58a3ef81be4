package org.mossbank.server.turn;

import jakarta.persistence.EntityManager;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.mossbank.core.turns.TurnVerdict;
import org.mossbank.server.answer.AnswerRewritten;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Sha256;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What was found of each reply, for other modules. */
@Service
public class Turns {
    private final TurnSaidRepository said;
    private final Answers answers;
    private final EntityManager entities;

    Turns(TurnSaidRepository said, Answers answers, EntityManager entities) {
        this.said = said;
        this.answers = answers;
        this.entities = entities;
    }

    /**
     * Whether a reply does what was asked.
     *
     * @param turn    0 for the first reply, then the follow-ups
     * @param verdict as it was found
     * @param by      name of who found it
     */
    public record Said(AnswerId answerId, int turn, TurnVerdict verdict, Instant at, String by) {}

    /** By answer and turn. */
    @SystemOnly
    @Transactional(readOnly = true)
    public List<Said> ofStudy(StudyId study) {
        return said.ofStudy(study).stream().map(TurnSaid::view).toList();
    }

    /** As an archive brings them; each of a reply that is there. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, List<Said> all) {
        for (Said one : all) {
            AnswerView answer = answers.one(study, one.answerId()).orElseThrow();
            entities.persist(TurnSaid.of(study, one, digest(answer, one.turn())));
        }
    }

    /** Another reply is not what was looked at; those that stay as they are keep what was found of them. */
    @SystemOnly
    @EventListener
    @Transactional
    public void forget(AnswerRewritten rewritten) {
        List<TurnSaid> before = said.ofAnswer(rewritten.answerId());
        if (before.isEmpty()) {
            return;
        }
        AnswerView now = answers.one(rewritten.answerId()).orElseThrow();
        before.stream()
                .filter(s -> s.turn() > now.followUps().size() || !s.isOf(digest(now, s.turn())))
                .forEach(said::delete);
    }

    static String digest(AnswerView answer, int turn) {
        String reply =
                turn == 0 ? answer.text() : answer.followUps().get(turn - 1).reply();
        return Sha256.hex(reply.getBytes(StandardCharsets.UTF_8));
    }
}
