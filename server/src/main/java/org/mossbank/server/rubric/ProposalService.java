package org.mossbank.server.rubric;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Actor;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Proposals for anchors, and what becomes of them. What raters grade by stays as it is: they go into the next version. */
@Service
@Transactional
class ProposalService {
    /** The most that a study collects. */
    static final int MOST = 500;

    private final AnchorProposalRepository proposals;
    private final RubricVersionRepository versions;
    private final Rubrics rubrics;
    private final RubricDrafts drafts;
    private final Prompts prompts;
    private final Actor actor;

    ProposalService(
            AnchorProposalRepository proposals,
            RubricVersionRepository versions,
            Rubrics rubrics,
            RubricDrafts drafts,
            Prompts prompts,
            Actor actor) {
        this.proposals = proposals;
        this.versions = versions;
        this.rubrics = rubrics;
        this.drafts = drafts;
        this.prompts = prompts;
        this.actor = actor;
    }

    /**
     * Another wording of an anchor.
     *
     * @param id        made by the client, so that what is sent twice is proposed once
     * @param criterion its key
     */
    record ProposeAnchor(
            @NotNull UUID id,
            @NotNull @Pattern(regexp = FreeKey.FORM) String criterion,
            @NotNull KindId kindId,
            @Min(0) @Max(CriterionContent.HIGHEST_LEVEL) int level,
            @NotBlank @Size(max = 1000) String words,
            @NotNull @Size(max = 1000) String why) {}

    /** Anybody of the study, as anchors are everybody's. */
    @PreAuthorize("@studyAccess.mayEnter(#study)")
    public void propose(StudyId study, ProposeAnchor request) {
        if (proposals.existsById(request.id())) {
            return;
        }
        if (proposals.countByStudyId(study) >= MOST) {
            throw new Problem(ProblemType.TOO_LATE, "More than %d proposals are read by nobody.".formatted(MOST));
        }
        CriterionView criterion = rubrics.ofStudy(study).stream()
                .filter(c -> c.key().equals(request.criterion()))
                .findFirst()
                .orElseThrow(() -> Problem.invalid("criterion", "must be one of the rubric"));
        if (request.level() > criterion.highestLevel()) {
            throw Problem.invalid("level", "must be at most " + criterion.highestLevel());
        }
        if (!criterion.appliesTo(request.kindId())
                || prompts.kinds(study).stream().noneMatch(k -> k.id().equals(request.kindId()))) {
            throw Problem.invalid("kindId", "must be a kind that the criterion is for");
        }
        proposals.save(AnchorProposal.of(
                request.id(),
                study,
                new AnchorProposal.Proposed(
                        request.criterion(),
                        request.kindId(),
                        request.level(),
                        request.words().strip(),
                        request.why().strip(),
                        actor.name(),
                        actor.now())));
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(readOnly = true)
    public List<ProposalView> ofStudy(StudyId study) {
        Map<KindId, String> kinds =
                prompts.kinds(study).stream().collect(Collectors.toMap(KindView::id, KindView::name));
        List<RubricVersion> all = versions.findByStudyIdOrderByNumber(study);
        List<CriterionView> newest = rubrics.of(all.get(all.size() - 1));
        return proposals.findByStudyIdOrderByProposedAt(study).stream()
                .map(p -> view(p, kinds, newest))
                .toList();
    }

    private static ProposalView view(AnchorProposal one, Map<KindId, String> kinds, List<CriterionView> newest) {
        AnchorProposal.Proposed proposed = one.proposed();
        AnchorProposal.Decision decision = one.decision();
        CriterionView criterion = newest.stream()
                .filter(c -> c.key().equals(proposed.criterion()))
                .findFirst()
                .orElse(null);
        return new ProposalView(
                one.id(),
                proposed.criterion(),
                criterion == null ? proposed.criterion() : criterion.name(),
                Require.known(kinds, proposed.kindId()),
                proposed.level(),
                proposed.words(),
                present(criterion, proposed),
                proposed.why(),
                proposed.by(),
                proposed.at(),
                one.state(),
                decision == null ? null : decision.by(),
                decision == null ? null : decision.at(),
                decision == null ? null : decision.version());
    }

    private static String present(@Nullable CriterionView criterion, AnchorProposal.Proposed proposed) {
        return criterion == null || proposed.level() > criterion.highestLevel()
                ? ""
                : criterion
                        .levels()
                        .get(proposed.level())
                        .anchorFor(proposed.kindId())
                        .orElse("");
    }

    /**
     * Writes a proposal into the draft of the next version, as it is or in other words.
     *
     * @param words what the anchor says from then on
     */
    record TakeProposal(@NotBlank @Size(max = 1000) String words) {}

    /** @throws Problem 409 if somebody has decided on it */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<ProposalView> take(StudyId study, UUID id, TakeProposal request) {
        List<RubricVersion> all = versions.lock(study);
        RubricVersion newest = all.get(all.size() - 1);
        AnchorProposal proposal = waiting(study, id);
        AnchorProposal.Proposed proposed = proposal.proposed();
        List<CriterionContent> contents =
                rubrics.of(newest).stream().map(CriterionView::content).toList();
        if (contents.stream()
                .noneMatch(c -> proposed.criterion().equals(c.key())
                        && proposed.level() < c.levels().size())) {
            throw new Problem(ProblemType.NOT_READY, "The rubric has no such criterion and level any more.");
        }
        RubricVersion draft = drafts.write(
                study,
                newest,
                contents.stream()
                        .map(c -> proposed.criterion().equals(c.key())
                                ? reworded(c, proposed, request.words().strip())
                                : c)
                        .toList());
        proposal.decide(new AnchorProposal.Decision(actor.name(), actor.now(), draft.number()));
        return ofStudy(study);
    }

    private AnchorProposal waiting(StudyId study, UUID id) {
        AnchorProposal proposal = proposals.lock(study, id).orElseThrow(() -> Problem.notFound("This proposal"));
        AnchorProposal.Decision decision = proposal.decision();
        if (decision != null) {
            throw new Problem(
                    ProblemType.NOT_READY,
                    decision.version() == null
                            ? "%s has declined it.".formatted(decision.by())
                            : "%s has taken it into version %d.".formatted(decision.by(), decision.version()));
        }
        return proposal;
    }

    private static CriterionContent reworded(
            CriterionContent criterion, AnchorProposal.Proposed proposed, String words) {
        return criterion.withLevels(IntStream.range(0, criterion.levels().size())
                .mapToObj(level -> level == proposed.level()
                        ? criterion.levels().get(level).withAnchor(proposed.kindId(), words)
                        : criterion.levels().get(level))
                .toList());
    }

    /** @throws Problem 409 if somebody has decided on it */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<ProposalView> decline(StudyId study, UUID id) {
        waiting(study, id).decide(new AnchorProposal.Decision(actor.name(), actor.now(), null));
        return ofStudy(study);
    }
}
