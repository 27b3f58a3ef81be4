package org.mossbank.server.archive;

import java.io.IOException;
import java.io.InputStream;
import org.mossbank.server.ids.StudyId;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

@RestController
class ArchiveController {
    private final ArchiveService archives;

    ArchiveController(ArchiveService archives) {
        this.archives = archives;
    }

    @PostMapping(path = "/api/studies/archive", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ArchiveService.Brought bringIn(@RequestPart("file") MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            return archives.bringIn(in);
        }
    }

    @GetMapping(path = "/api/studies/{studyId}/archive", produces = "application/zip")
    ResponseEntity<StreamingResponseBody> writeOut(@PathVariable StudyId studyId) {
        ArchiveFiles files = archives.writeOut(studyId);
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"study.zip\"")
                .body(files::writeZip);
    }
}
