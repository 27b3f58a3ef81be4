package org.mossbank.server.reconciliation;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.UUID;
import org.mossbank.server.answer.GradedCode;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
class SplitController {
    private final OwnSplitList own;
    private final SplitTalk talk;
    private final SplitPages.Code code;

    SplitController(OwnSplitList own, SplitTalk talk, SplitPages.Code code) {
        this.code = code;
        this.own = own;
        this.talk = talk;
    }

    /**
     * Splits that concern whoever asks, over all studies, first those that wait for something.
     *
     * @param earlier which twenty of the studies whose round is closed, from 0, those with the newest splits first; those whose round
     *                is open come with the first
     */
    @GetMapping("/api/splits")
    SplitViews.OwnSplits mine(@RequestParam(defaultValue = "0") @Min(0) @Max(10_000) int earlier) {
        return own.mine(earlier);
    }

    /** A split with its talk. */
    @GetMapping("/api/splits/{splitId}")
    SplitPage page(@PathVariable UUID splitId) {
        return talk.page(splitId);
    }

    /** What the answer of a split changes in the starting code. */
    @GetMapping("/api/splits/{splitId}/code")
    GradedCode code(@PathVariable UUID splitId) {
        return code.of(splitId);
    }

    /** Says something about a split. */
    @MayRefuse({ProblemType.ROUND_CLOSED, ProblemType.SPLIT_CLOSED, ProblemType.TOO_LATE})
    @PostMapping("/api/splits/{splitId}/words")
    SplitPage say(@PathVariable UUID splitId, @Valid @RequestBody SplitRequests.Say request) {
        return talk.say(splitId, request);
    }

    /** Says at which level one stands now; the grade that was given stays. */
    @MayRefuse({ProblemType.ROUND_CLOSED, ProblemType.SPLIT_CLOSED})
    @PostMapping("/api/splits/{splitId}/stances")
    SplitPage stand(@PathVariable UUID splitId, @Valid @RequestBody SplitRequests.Stand request) {
        return talk.stand(splitId, request);
    }

    /** What one is asked to look at, without anybody's grades. */
    @GetMapping("/api/splits/{splitId}/look")
    SplitViews.BlindLook look(@PathVariable UUID splitId) {
        return talk.look(splitId);
    }

    /** Gives a blind look: the median of all stands then. */
    @MayRefuse({ProblemType.ROUND_CLOSED, ProblemType.SPLIT_CLOSED})
    @PutMapping("/api/splits/{splitId}/look")
    SplitViews.BlindLook giveLook(@PathVariable UUID splitId, @Valid @RequestBody SplitRequests.GiveLook request) {
        return talk.giveLook(splitId, request);
    }
}
