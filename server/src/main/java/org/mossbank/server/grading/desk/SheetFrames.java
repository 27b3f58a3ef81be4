package org.mossbank.server.grading.desk;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.springframework.stereotype.Component;

/** Frames of sheets: a rater's every key press asks for one, so they are kept at hand. */
@Component
class SheetFrames {
    private static final int MOST = 20_000;
    private static final Duration KEPT = Duration.ofMinutes(30);

    private final SheetRepository sheets;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final Cache<SheetId, SheetFrame> frames =
            Caffeine.newBuilder().maximumSize(MOST).expireAfterWrite(KEPT).build();

    SheetFrames(SheetRepository sheets, Prompts prompts, Rubrics rubrics) {
        this.sheets = sheets;
        this.prompts = prompts;
        this.rubrics = rubrics;
    }

    /** @throws Problem 404 if there is no such sheet */
    SheetFrame of(SheetId sheet) {
        return find(sheet).orElseThrow(() -> Problem.notFound("This sheet"));
    }

    Optional<SheetFrame> find(SheetId sheet) {
        return Optional.ofNullable(frames.get(sheet, this::read));
    }

    private @Nullable SheetFrame read(SheetId id) {
        return sheets.ids(id)
                .map(sheet -> {
                    PromptView prompt =
                            prompts.one(sheet.studyId(), sheet.promptId()).orElseThrow();
                    return new SheetFrame(
                            id,
                            sheet.studyId(),
                            sheet.raterId(),
                            sheet.promptId(),
                            DeskService.applicable(
                                    rubrics.by(sheet.studyId(), sheet.rubricVersion()),
                                    prompt.kind().id()),
                            prompt.content().keyPoints().size());
                })
                .orElse(null);
    }
}
