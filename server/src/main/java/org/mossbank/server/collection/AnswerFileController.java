package org.mossbank.server.collection;

import java.io.IOException;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
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

    /** Shows what a file of answers would bring, and takes nothing. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PostMapping(path = "/preview", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    AnswerFileService.Preview preview(@PathVariable StudyId studyId, @RequestParam MultipartFile file)
            throws IOException {
        return files.preview(studyId, file);
    }

    /** Takes answers from a file, whole or not at all. */
    @MayRefuse({ProblemType.ANSWERS_REFUSED, ProblemType.ROUND_OPENED})
    @PostMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    AnswerFileService.Taken take(@PathVariable StudyId studyId, @RequestParam MultipartFile file) throws IOException {
        return files.take(studyId, file);
    }
}
