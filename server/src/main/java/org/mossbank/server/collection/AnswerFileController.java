package org.mossbank.server.collection;

import java.io.IOException;
import org.mossbank.server.ids.StudyId;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

@RestController
@RequestMapping("/api/studies/{studyId}/answer-files")
class AnswerFileController {
    private final AnswerFileService files;

    AnswerFileController(AnswerFileService files) {
        this.files = files;
    }

    @PostMapping(path = "/preview", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    AnswerFileService.Preview preview(@PathVariable StudyId studyId, @RequestParam MultipartFile file)
            throws IOException {
        return files.preview(studyId, file);
    }

    @PostMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    AnswerFileService.Taken take(@PathVariable StudyId studyId, @RequestParam MultipartFile file) throws IOException {
        return files.take(studyId, file);
    }
}
