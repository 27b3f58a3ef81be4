package org.mossbank.server.memo;

import jakarta.validation.Valid;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.document.EntryView;
import org.mossbank.server.memo.paper.MemoPage;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class MemoLinkController {
    /** Where links lead, before their token. */
    static final String ADDRESS = "/api/memo-links/";

    /** Nothing but the page itself: no script, no picture from anywhere, no frame around it. */
    private static final String NOTHING_ELSE = "default-src 'none'; style-src " + MemoPage.STYLE_SOURCE
            + "; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

    private static final String OF_MEMO = "/api/studies/{studyId}/memos/{number}";

    private final MemoLinkService links;

    MemoLinkController(MemoLinkService links) {
        this.links = links;
    }

    static ResponseEntity<byte[]> page(String html) {
        return ResponseEntity.ok()
                .header("Content-Security-Policy", NOTHING_ELSE)
                .header("X-Robots-Tag", "noindex, nofollow")
                .cacheControl(CacheControl.noStore())
                .contentType(new MediaType("text", "html", StandardCharsets.UTF_8))
                .body(html.getBytes(StandardCharsets.UTF_8));
    }

    /** A signed memo, for whoever has the link and needs no account. */
    @MayRefuse(ProblemType.LINK_USED_OR_EXPIRED)
    @GetMapping(path = ADDRESS + "{token}", produces = MediaType.TEXT_HTML_VALUE)
    ResponseEntity<byte[]> read(@PathVariable String token) {
        return page(links.page(token));
    }

    /** Makes a link with which somebody without an account reads a signed memo. */
    @MayRefuse(ProblemType.NOT_READY)
    @PostMapping(OF_MEMO + "/links")
    @ResponseStatus(HttpStatus.CREATED)
    MemoViews.NewLink make(
            @PathVariable StudyId studyId, @PathVariable int number, @Valid @RequestBody MemoViews.MakeLink request) {
        return links.link(studyId, number, request);
    }

    /** Withdraws a link: from then on it opens nothing. */
    @DeleteMapping(OF_MEMO + "/links/{linkId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdraw(@PathVariable StudyId studyId, @PathVariable int number, @PathVariable UUID linkId) {
        links.withdraw(studyId, number, linkId);
    }

    /** Adds a second signature, what was decided in the end, or a note to a signed memo. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.STANDINGS_HIDDEN, ProblemType.PROOF_NEEDED})
    @PostMapping(OF_MEMO + "/entries")
    @ResponseStatus(HttpStatus.CREATED)
    EntryView add(
            @PathVariable StudyId studyId, @PathVariable int number, @Valid @RequestBody MemoViews.AddEntry request) {
        return request.sort() == EntryView.Sort.COUNTERSIGNED
                ? links.countersign(studyId, number, request)
                : links.add(studyId, number, request);
    }
}
