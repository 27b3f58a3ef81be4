package org.mossbank.server.audit;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.function.Function;
import org.mossbank.server.ids.StudyId;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;

@RestController
class AuditController {
    private static final String JSON_LINES = "application/jsonl";

    private final AuditService events;
    private final TakenAway taken;
    private final JsonMapper mapper;

    AuditController(AuditService events, TakenAway taken, JsonMapper mapper) {
        this.events = events;
        this.taken = taken;
        this.mapper = mapper;
    }

    /** What was done in a study, newest first. */
    @GetMapping("/api/studies/{studyId}/audit-events")
    AuditService.AuditPage ofStudy(
            @PathVariable StudyId studyId, @Valid @ParameterObject AuditService.AuditQuery query) {
        return events.ofStudy(studyId, query);
    }

    /** What was done anywhere, newest first; what was done in studies without their content. */
    @GetMapping("/api/audit-events")
    AuditService.AuditPage all(@Valid @ParameterObject AuditService.AuditQuery query) {
        return events.all(query);
    }

    /** The same of a study as JSON Lines, all of it that the query names. */
    @GetMapping(path = "/api/studies/{studyId}/audit-events/lines", produces = JSON_LINES)
    void linesOfStudy(
            @PathVariable StudyId studyId,
            @Valid @ParameterObject AuditService.AuditQuery query,
            HttpServletResponse response)
            throws IOException {
        AuditService.AuditPage first = events.ofStudy(studyId, query.atOnce());
        taken.of(studyId, AuditSort.RECORD_EXPORTED, "");
        write(first, q -> events.ofStudy(studyId, q), query.atOnce(), response);
    }

    /** The same of everything as JSON Lines. */
    @GetMapping(path = "/api/audit-events/lines", produces = JSON_LINES)
    void lines(@Valid @ParameterObject AuditService.AuditQuery query, HttpServletResponse response) throws IOException {
        AuditService.AuditPage first = events.all(query.atOnce());
        taken.record();
        write(first, events::all, query.atOnce(), response);
    }

    /** Page by page: no connection is held while whoever asks takes their time to read. */
    private void write(
            AuditService.AuditPage first,
            Function<AuditService.AuditQuery, AuditService.AuditPage> next,
            AuditService.AuditQuery query,
            HttpServletResponse response)
            throws IOException {
        response.setContentType(JSON_LINES);
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"what-was-done.jsonl\"");
        OutputStream out = response.getOutputStream();
        AuditService.AuditPage page = first;
        while (true) {
            for (AuditEventView event : page.events()) {
                out.write((mapper.writeValueAsString(event) + "\n").getBytes(StandardCharsets.UTF_8));
            }
            Long before = page.next();
            if (before == null) {
                return;
            }
            page = next.apply(query.after(before));
        }
    }
}
