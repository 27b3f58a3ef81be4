package org.mossbank.server.archive;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.audit.TakenAway;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

@RestController
class ArchiveController {
    private final TakenAway taken;
    private final ArchiveService archives;
    private final ImportJobs imports;
    private final NextStudy next;
    private final StudyCopy copies;

    ArchiveController(ArchiveService archives, ImportJobs imports, NextStudy next, TakenAway taken, StudyCopy copies) {
        this.copies = copies;
        this.taken = taken;
        this.next = next;
        this.archives = archives;
        this.imports = imports;
    }

    /**
     * Brings in an archive while whoever sent it waits.
     *
     * @param again brings it in once more where the very same file was brought in before
     */
    @MayRefuse(ProblemType.ARCHIVE_REFUSED)
    @PostMapping(path = "/api/studies/archive", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ArchiveIntake.Brought bringIn(
            @RequestPart("file") MultipartFile file, @RequestParam(defaultValue = "false") boolean again) {
        return archives.bringIn(file, again);
    }

    /**
     * Begins to bring in an archive; how far it is, is asked for.
     *
     * @param again as above
     */
    @PostMapping(path = "/api/imports", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseStatus(HttpStatus.ACCEPTED)
    ImportView begin(@RequestPart("file") MultipartFile file, @RequestParam(defaultValue = "false") boolean again) {
        return imports.begin(file, again);
    }

    /** One's own imports, newest first. */
    @GetMapping("/api/imports")
    List<ImportView> imports() {
        return imports.own();
    }

    /** How far an import is, and what came of it. */
    @GetMapping("/api/imports/{importId}")
    ImportView oneImport(@PathVariable UUID importId) {
        return imports.one(importId);
    }

    /** Gives an import up; nothing is written then. */
    @DeleteMapping("/api/imports/{importId}")
    ImportView cancel(@PathVariable UUID importId) {
        return imports.cancel(importId);
    }

    /** Makes a second study from what this one was prepared with: without people and grades, with or without answers. */
    @PostMapping("/api/studies/{studyId}/copies")
    @ResponseStatus(HttpStatus.CREATED)
    StudyCopy.Copied copy(@PathVariable StudyId studyId, @Valid @RequestBody StudyCopy.CopyStudy request) {
        return copies.copy(studyId, request);
    }

    /** Begins the next study from this one: the same prompts, rubric, rule and raters, and some of its answers once more. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @PostMapping("/api/studies/{studyId}/next")
    @ResponseStatus(HttpStatus.CREATED)
    NextStudy.Begun next(@PathVariable StudyId studyId, @Valid @RequestBody NextStudy.BeginNext request) {
        return next.begin(studyId, request);
    }

    /** The whole study as a zip of open files. */
    @GetMapping(path = "/api/studies/{studyId}/archive", produces = "application/zip")
    ResponseEntity<StreamingResponseBody> writeOut(@PathVariable StudyId studyId) {
        ArchiveFiles files = archives.writeOut(studyId);
        taken.of(studyId, AuditSort.STUDY_EXPORTED, "archive");
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"study.zip\"")
                .contentType(new MediaType("application", "zip"))
                .body(files::writeZip);
    }
}
