package org.mossbank.server.reconciliation;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.springframework.stereotype.Component;

/** Talks of studies as one person has followed them. Within the transaction of whoever asks. */
@Component
class TalkRecords {
    private final SplitWordRepository words;
    private final StanceRepository stances;
    private final ThirdLookRepository looks;
    private final TalkReadingRepository readings;

    TalkRecords(
            SplitWordRepository words,
            StanceRepository stances,
            ThirdLookRepository looks,
            TalkReadingRepository readings) {
        this.words = words;
        this.stances = stances;
        this.looks = looks;
        this.readings = readings;
    }

    OfPerson of(Collection<StudyId> studies, AccountId own) {
        List<SplitWordRepository.Said> said = words.saidIn(studies);
        return new OfPerson(
                own,
                said.stream()
                        .collect(Collectors.groupingBy(
                                SplitWordRepository.Said::reconciliationId, Collectors.counting())),
                said.stream()
                        .filter(w -> !w.authorId().equals(own))
                        .collect(Collectors.toMap(
                                SplitWordRepository.Said::reconciliationId,
                                SplitWordRepository.Said::at,
                                (a, b) -> a.isAfter(b) ? a : b)),
                readings.ofReader(own).stream()
                        .collect(Collectors.toMap(TalkReading::reconciliationId, TalkReading::lastReadAt)),
                stances.ofStudies(studies).stream()
                        .collect(Collectors.groupingBy(
                                Stance::reconciliationId,
                                Collectors.mapping(s -> s.stood().rater(), Collectors.toSet()))),
                looks.ofRater(own).stream()
                        .collect(Collectors.toMap(l -> l.key().reconciliationId(), ThirdLook::isGiven)));
    }

    /**
     * By split.
     *
     * @param lastByOthers when somebody else last said something
     * @param own          the person
     * @param stood        who has said where they stand
     * @param looked       where they were asked for a blind look, and whether it is given
     */
    record OfPerson(
            AccountId own,
            Map<UUID, Long> said,
            Map<UUID, Instant> lastByOthers,
            Map<UUID, Instant> lastRead,
            Map<UUID, Set<AccountId>> stood,
            Map<UUID, Boolean> looked) {
        int words(UUID split) {
            return said.getOrDefault(split, 0L).intValue();
        }

        boolean stands(UUID split) {
            return stood.getOrDefault(split, Set.of()).contains(own);
        }

        int standing(UUID split) {
            return stood.getOrDefault(split, Set.of()).size();
        }

        boolean isNewsFor(UUID split) {
            Instant last = lastByOthers.get(split);
            return last != null && last.isAfter(lastRead.getOrDefault(split, Instant.EPOCH));
        }

        boolean isAskedToLook(UUID split) {
            return looked.containsKey(split);
        }

        boolean hasLooked(UUID split) {
            return looked.getOrDefault(split, false);
        }
    }
}
