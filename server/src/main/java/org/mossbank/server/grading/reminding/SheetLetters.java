package org.mossbank.server.grading.reminding;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.mail.Letter;
import org.mossbank.server.mail.LetterWriter;
import org.mossbank.server.mail.MailOrder;
import org.mossbank.server.mail.MailSort;
import org.mossbank.server.mail.MailTexts;
import org.mossbank.server.mail.Waiting;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Sheets that wait for a rater, in letters: how many, and in which study. */
@Component
@Transactional(readOnly = true)
class SheetLetters implements LetterWriter, Waiting {
    private final SheetRepository sheets;
    private final Studies studies;
    private final Accounts accounts;
    private final MailTexts texts;

    SheetLetters(SheetRepository sheets, Studies studies, Accounts accounts, MailTexts texts) {
        this.sheets = sheets;
        this.studies = studies;
        this.accounts = accounts;
        this.texts = texts;
    }

    /** Sheets to be graded now, by study. */
    private Map<StudyId, Long> open(AccountId rater) {
        return sheets.waiting(rater).stream()
                .filter(c -> studies.stage(c.id()) == RoundStage.Stage.GRADING)
                .collect(Collectors.toMap(SheetCount::id, SheetCount::count));
    }

    @Override
    public List<String> waitsFor(AccountId account) {
        return open(account).entrySet().stream()
                .map(e -> sheetsIn(e.getValue(), e.getKey()))
                .sorted()
                .toList();
    }

    private String sheetsIn(long count, StudyId study) {
        return "%d %s to grade in: %s"
                .formatted(
                        count,
                        count == 1 ? "sheet" : "sheets",
                        studies.get(study).title());
    }

    @Override
    public MailSort sort() {
        return MailSort.REMINDER;
    }

    /** What the lead wrote stands in Mossbank: a letter goes past other servers. */
    @Override
    public Optional<Letter> write(MailOrder order) {
        StudyId study = Objects.requireNonNull(order.studyId());
        long count = open(order.to()).getOrDefault(study, 0L);
        if (count == 0) {
            return Optional.empty();
        }
        return Optional.of(texts.letter(
                "Sheets wait for you in Mossbank",
                Require.known(accounts.byId(List.of(order.to())), order.to()).displayName(),
                "%s reminds you: %s.".formatted(order.by(), sheetsIn(count, study))));
    }
}
