package org.mossbank.server.search;

import jakarta.validation.Valid;
import org.mossbank.server.ids.StudyId;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class SearchController {
    private final SearchService search;

    SearchController(SearchService search) {
        this.search = search;
    }

    /** Where words stand in a study's prompts, answers and remarks, a page of 50. */
    @GetMapping("/api/studies/{studyId}/search")
    SearchService.FoundWords find(
            @PathVariable StudyId studyId, @Valid @ParameterObject SearchService.SearchQuery query) {
        return search.find(studyId, query);
    }
}
