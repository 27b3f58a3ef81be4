package org.mossbank.server.grading.desk;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.resilience4j.bulkhead.Bulkhead;
import io.github.resilience4j.bulkhead.BulkheadConfig;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.springframework.http.HttpMethod;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Only so many changes of one study are made at the same time; others wait their turn before they take a connection. So a
 * study in which somebody holds a lock keeps its own raters waiting, and nobody else's.
 */
@Component
class StudyTurns implements WebMvcConfigurer, HandlerInterceptor {
    /** Fewer than half of the connections there are for what is done at once. */
    static final int MOST_A_STUDY = 6;

    private static final Duration LONGEST_WAIT = Duration.ofMillis(2_500);
    private static final int STUDIES_KEPT = 10_000;
    private static final String TURN = StudyTurns.class.getName();

    private final SheetFrames frames;
    private final Cache<StudyId, Bulkhead> turns =
            Caffeine.newBuilder().maximumSize(STUDIES_KEPT).build();

    StudyTurns(SheetFrames frames) {
        this.frames = frames;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/sheets/{sheetId}/**");
    }

    /** @throws Problem 503 if the study's turn does not come in time */
    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        if (HttpMethod.GET.matches(request.getMethod())) {
            return true;
        }
        study(request).ifPresent(study -> {
            Bulkhead turn = Objects.requireNonNull(turns.get(study, s -> turns()));
            if (!turn.tryAcquirePermission()) {
                throw Problem.busy("Many change this study at this moment.");
            }
            request.setAttribute(TURN, turn);
        });
        return true;
    }

    private static Bulkhead turns() {
        return Bulkhead.of(
                "study",
                BulkheadConfig.custom()
                        .maxConcurrentCalls(MOST_A_STUDY)
                        .maxWaitDuration(LONGEST_WAIT)
                        .build());
    }

    private Optional<StudyId> study(HttpServletRequest request) {
        Object variables = request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
        Object sheet = variables instanceof Map<?, ?> map ? map.get("sheetId") : null;
        try {
            return sheet == null
                    ? Optional.empty()
                    : frames.find(SheetId.from(sheet.toString())).map(SheetFrame::studyId);
        } catch (IllegalArgumentException e) {
            // No id; refused where it is read.
            return Optional.empty();
        }
    }

    @Override
    public void afterCompletion(
            HttpServletRequest request, HttpServletResponse response, Object handler, @Nullable Exception failure) {
        if (request.getAttribute(TURN) instanceof Bulkhead turn) {
            turn.onComplete();
        }
    }
}
