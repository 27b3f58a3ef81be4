package org.mossbank.server.grading.desk;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.stereotype.Component;

/**
 * A repeat shows whether its rater agrees with themselves. So it comes unannounced: it is in no list before it is reached, and
 * until it is sent in neither the first sheet nor a reference answer is shown.
 */
@Component
class Repeats {
    private final SheetRepository sheets;
    private final Prompts prompts;

    Repeats(SheetRepository sheets, Prompts prompts) {
        this.sheets = sheets;
        this.prompts = prompts;
    }

    /**
     * Those of a rater's sheets that they are told of: all but the repeats that are not reached.
     *
     * @param own   of one study, by place
     * @param sound prompts that count; a sheet for another need not be sent in
     */
    static List<Sheet> told(List<Sheet> own, Set<PromptId> sound) {
        List<Sheet> told = new ArrayList<>();
        boolean reached = true;
        for (Sheet sheet : own) {
            if (reached || !comesUnannounced(sheet) || sheet.isSent()) {
                told.add(sheet);
            }
            reached &= sheet.isSent() || sheet.isWithdrawn() || !sound.contains(sheet.promptId());
        }
        return told;
    }

    /** Where raters calibrate, they know that they grade it again. */
    private static boolean comesUnannounced(Sheet sheet) {
        return sheet.isRepeat() && sheet.rubricVersion().isEmpty();
    }

    /** Whether the prompt of a sheet comes to its rater once more. */
    boolean isToCome(Sheet sheet) {
        return !sheet.isRepeat() && own(sheet).stream().anyMatch(s -> isOpenRepeatOf(s, sheet));
    }

    /** @throws Problem 409 while the same prompt is before the rater a second time */
    void refuseFirstMeanwhile(Sheet sheet) {
        if (sheet.isRepeat() || !sheet.isSent()) {
            return;
        }
        List<Sheet> own = own(sheet);
        boolean isBefore = own.stream().anyMatch(s -> isOpenRepeatOf(s, sheet))
                && told(own, Set.copyOf(prompts.gradedIds(sheet.studyId()))).stream()
                        .anyMatch(s -> isOpenRepeatOf(s, sheet));
        if (isBefore) {
            throw new Problem(
                    ProblemType.REPEAT_OPEN,
                    "This prompt is before you a second time. How you graded it first can be read once that sheet is sent in.");
        }
    }

    private List<Sheet> own(Sheet sheet) {
        return sheets.findByStudyIdAndRaterIdOrderByPlace(sheet.studyId(), sheet.raterId());
    }

    private static boolean isOpenRepeatOf(Sheet repeat, Sheet first) {
        return repeat.isRepeat()
                && !repeat.isSent()
                && !repeat.isWithdrawn()
                && repeat.promptId().equals(first.promptId());
    }
}
