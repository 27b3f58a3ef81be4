package org.mossbank.server.grading.reminding;

import java.util.Collection;
import java.util.Map;
import java.util.stream.Collectors;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.WaitsForLead;
import org.springframework.stereotype.Component;

/** How many sheets a lead still waits for. */
@Component
class SheetsAwaited implements WaitsForLead {
    private final SheetRepository sheets;

    SheetsAwaited(SheetRepository sheets) {
        this.sheets = sheets;
    }

    @Override
    public RoundStage.Stage stage() {
        return RoundStage.Stage.GRADING;
    }

    @Override
    public Map<StudyId, String> of(Collection<StudyId> studies) {
        return sheets.sentIn(studies).stream()
                .collect(Collectors.toMap(
                        SheetRepository.SheetsIn::studyId,
                        s -> s.in() == s.all()
                                ? "all sheets are in; the round can be closed"
                                : "%d of %d sheets are in".formatted(s.in(), s.all())));
    }
}
