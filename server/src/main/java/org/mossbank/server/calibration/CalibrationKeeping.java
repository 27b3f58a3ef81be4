package org.mossbank.server.calibration;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.UnaryOperator;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.Bank;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps what raters calibrated by in the bank, for the studies to come. */
@Service
class CalibrationKeeping {
    private final CalibrationReader reader;
    private final CalibrationPages pages;
    private final Bank bank;
    private final Masking masking;

    CalibrationKeeping(CalibrationReader reader, CalibrationPages pages, Bank bank, Masking masking) {
        this.reader = reader;
        this.pages = pages;
        this.bank = bank;
        this.masking = masking;
    }

    /**
     * Keeps each prompt of a calibration in the bank, with the answers that have a level, as raters read them.
     *
     * @throws Problem 409 before the talk, or if no answer has a level
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public List<CalibrationViews.KeptPrompt> keep(StudyId study, int number) {
        Calibration calibration = reader.found(study, number);
        if (!calibration.isTalkOpen()) {
            throw new Problem(ProblemType.NOT_READY, "Not everybody has sent in yet.");
        }
        CalibrationBasis basis = reader.basis(calibration);
        UnaryOperator<String> spoken = masking.said(study);
        List<CalibrationViews.KeptPrompt> kept = new ArrayList<>();
        for (PromptView prompt : basis.prompts()) {
            List<Bank.Specimen> own = basis.answers().stream()
                    .filter(a -> a.prompt().id().equals(prompt.id()))
                    .map(a -> new Bank.Specimen(pages.text(a), levels(basis, a, spoken)))
                    .filter(s -> !s.levels().isEmpty())
                    .toList();
            if (!own.isEmpty()) {
                kept.add(new CalibrationViews.KeptPrompt(
                        prompt.title(), bank.keepWith(study, prompt.id(), own), own.size()));
            }
        }
        if (kept.isEmpty()) {
            throw new Problem(ProblemType.NOT_READY, "No answer has a level yet that it should stand at.");
        }
        return kept;
    }

    /** What the talk came to; where it came to nothing, what was said beforehand. */
    private static List<Bank.Specimen.SaidLevel> levels(
            CalibrationBasis basis, CalibrationBasis.Shown shown, UnaryOperator<String> spoken) {
        return basis.criteriaFor(shown.prompt()).stream()
                .flatMap(c -> basis.agreed().stream()
                        .filter(a -> a.answerId().equals(shown.id())
                                && basis.key(a.criterionId()).equals(c.key()))
                        .max(Comparator.comparing(Calibrations.Agreed::source))
                        .map(a -> new Bank.Specimen.SaidLevel(
                                c.key(), a.level(), c.highestLevel(), spoken.apply(a.reason()), a.by(), a.at()))
                        .stream())
                .toList();
    }
}
