package org.mossbank.server.source;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Writing sources, and trying them. */
@Service
@Transactional(readOnly = true)
class SourceService {
    private final SourceRepository sources;
    private final SourceClient client;
    private final Candidates candidates;
    private final Studies studies;
    private final AllowedAddresses allowed;
    private final Secrets secrets;
    private final EntityManager entities;

    private final Snapshot snapshot;

    SourceService(
            SourceRepository sources,
            SourceClient client,
            Candidates candidates,
            Studies studies,
            AllowedAddresses allowed,
            Secrets secrets,
            EntityManager entities,
            Snapshot snapshot) {
        this.snapshot = snapshot;
        this.sources = sources;
        this.client = client;
        this.candidates = candidates;
        this.studies = studies;
        this.allowed = allowed;
        this.secrets = secrets;
        this.entities = entities;
    }

    /** @param version counts up with every change; sent back with the next one */
    record SourceView(CandidateId candidateId, SourceContent content, long version) {
        static SourceView of(Source source) {
            return new SourceView(source.candidateId(), source.content(), source.version());
        }
    }

    /**
     * A study's sources, and what the server's administrator gives for them.
     *
     * @param secretNames names that headers may hold
     * @param allowed     what may be reached
     */
    record SourcesView(List<SourceView> sources, List<String> secretNames, List<String> allowed) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public SourcesView ofStudy(StudyId study) {
        return new SourcesView(
                sources.ofStudy(study).stream().map(SourceView::of).toList(), secrets.names(), allowed.sources());
    }

    /** @param version -1 for a first one */
    record WriteSource(
            @Min(-1) long version, @NotNull @Valid SourceContent content) {}

    /** @throws Problem 400 with the field that is not right; 409 if it was changed in the meantime */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public SourceView write(StudyId study, CandidateId candidate, WriteSource request) {
        studies.requirePreparing(study);
        CandidateView found = candidates.one(study, candidate).orElseThrow(() -> Problem.notFound("This candidate"));
        if (found.content().baseline()) {
            throw Problem.invalid("content.url", "must be absent, as a person's answers come from that person");
        }
        check(request.content());
        Source source = sources.ofCandidate(study, candidate).orElse(null);
        if ((source == null ? -1 : source.version()) != request.version()) {
            Problem changed = new Problem(
                    ProblemType.CHANGED_ELSEWHERE, "The source was changed in another window since you saw it.");
            throw source == null ? changed : changed.with("current", SourceView.of(source));
        }
        if (source == null) {
            source = Source.of(study, candidate, request.content());
            entities.persist(source);
        } else {
            source.write(request.content());
        }
        entities.flush();
        return SourceView.of(source);
    }

    /** They say where a request goes, how it is sent and for whom. */
    private static final Set<String> OURS =
            Set.of("host", "connection", "upgrade", "cookie", "content-length", "transfer-encoding", "forwarded");

    private void check(SourceContent content) {
        allowed.fault(content.url()).ifPresent(why -> {
            throw Problem.invalid("content.url", why);
        });
        for (int i = 0; i < content.headers().size(); i++) {
            String field = "content.headers[" + i + "].value";
            String header = content.headers().get(i).name().toLowerCase(Locale.ROOT);
            if (OURS.contains(header) || header.startsWith("x-forwarded-")) {
                throw Problem.invalid("content.headers[" + i + "].name", "is set by the server itself");
            }
            secrets.unknownIn(content.headers().get(i).value()).ifPresent(name -> {
                throw Problem.invalid(
                        field, "names the secret " + name + ", which the server's administrator did not give");
            });
            secrets.notFor(content.url(), content.headers().get(i).value()).ifPresent(name -> {
                throw Problem.invalid(field, "names the secret " + name + ", which may not be sent to this address");
            });
        }
        Sources.fault(content).ifPresent(fault -> {
            throw Problem.invalid("content." + fault.field(), fault.rule());
        });
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void remove(StudyId study, CandidateId candidate) {
        studies.requirePreparing(study);
        sources.delete(sources.ofCandidate(study, candidate).orElseThrow(() -> Problem.notFound("This source")));
    }

    record TrySource(@NotBlank @Size(max = 2000) String text) {}

    /** What came of a try-out, which is kept nowhere. */
    record TryOutView(
            Reply.Ending ending,
            String text,
            @Nullable Long firstOutputMs,
            long totalMs,
            @Nullable Long inputTokens,
            @Nullable Long outputTokens,
            String reason) {}

    /**
     * Asks once, to see whether the source is right. It may cost something.
     *
     * @throws Problem 409 if the text looks like a secret: it is there to be written otherwise
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NOT_SUPPORTED)
    public TryOutView tryOut(StudyId study, CandidateId candidate, TrySource request) {
        org.mossbank.core.secrets.Secrets.in(request.text()).stream()
                .findFirst()
                .ifPresent(f -> {
                    throw new Problem(
                            ProblemType.SECRETS_FOUND,
                            "Line %d of the text looks like a secret. Nothing was sent; try it with another text."
                                    .formatted(f.line()));
                });
        SourceContent source = snapshot.of(() -> sources.ofCandidate(study, candidate)
                .map(Source::content)
                .orElseThrow(() -> Problem.notFound("This source")));
        Reply reply = client.ask(
                source, List.of(new Turn(request.text(), null)), 1, (text, ms) -> {}, new SourceClient.Cancel());
        return new TryOutView(
                reply.ending(),
                reply.text(),
                reply.firstOutputMs(),
                reply.totalMs(),
                reply.inputTokens(),
                reply.outputTokens(),
                reply.reason());
    }
}
