package org.mossbank.server.archive;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.Faults;
import org.mossbank.server.files.Words;
import org.mossbank.server.rubric.KeyedVersion;
import org.mossbank.server.study.Brief;
import org.mossbank.server.study.KeptForecast;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.study.Reopening;
import org.mossbank.server.study.RuleTerms;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads study.json, which its schema has let through. */
final class StudyFileReader {
    private static final double USUAL_FLOOR = 0.67;
    private static final double USUAL_MARGIN = 5;
    private static final int USUAL_RATERS = 3;

    private final JsonNode json;
    private final String path;
    private final Faults faults;

    StudyFileReader(JsonNode json, String path, Faults faults) {
        this.json = json;
        this.path = path;
        this.faults = faults;
    }

    static boolean isPreparing(JsonNode json) {
        return json.path("stage").asString("").equals("preparing");
    }

    /**
     * @param freshSeed asked when the file names no seed
     * @param now       when a brief counts as closed of which nothing is said
     */
    StudyArchive.Head read(LongSupplier freshSeed, Instant now) {
        boolean preparing = isPreparing(json);
        Instant closedAt = instant(json.at("/brief/closedAt"));
        if (!json.has("brief") && !preparing) {
            closedAt = now;
        }
        JsonNode rubric = json.path("rubric");
        Instant publishedAt = json.has("rubric") ? instant(rubric.path("publishedAt")) : now;
        if (publishedAt == null && !preparing) {
            faults.add(new Fault(path, null, "/rubric/publishedAt", "a time, as the round is open", null));
        }
        return new StudyArchive.Head(
                json.path("title").asString(),
                brief(),
                preparing,
                closedAt,
                forecast(),
                reopenings(),
                json.has("seed") ? json.path("seed").asLong() : freshSeed.getAsLong(),
                json.has("mostFollowUps") ? json.path("mostFollowUps").asInt() : null,
                new KeyedVersion.Head(
                        rubric.path("version").asInt(1),
                        publishedAt,
                        rubric.path("note").asString("")),
                preparing ? StudyArchive.RoundHead.NONE : round());
    }

    private Brief brief() {
        JsonNode rule = json.path("decisionRule");
        JsonNode gate = rule.path("gate");
        return new Brief(
                json.path("question").asString(""),
                json.path("audience").asString(""),
                json.path("background").asString(""),
                new RuleTerms(
                        constant(Coefficient.class, rule.path("coefficient"), Coefficient.ALPHA_ORDINAL),
                        rule.path("agreementFloor").asDouble(USUAL_FLOOR),
                        constant(DecisionRule.FloorOn.class, rule.path("floorOn"), DecisionRule.FloorOn.ESTIMATE),
                        rule.path("margin").asDouble(USUAL_MARGIN),
                        rule.path("minimumRaters").asInt(USUAL_RATERS),
                        constant(DecisionRule.TieBreak.class, rule.path("tieBreak"), DecisionRule.TieBreak.NONE),
                        rule.path("strictOnMasking").asBoolean(false),
                        rule.path("strictOnSplits").asBoolean(false),
                        rule.path("byKind").asBoolean(false),
                        rule.path("looks").asInt(1),
                        constant(
                                RuleTerms.FailedAnswers.class,
                                rule.path("failedAnswers"),
                                RuleTerms.FailedAnswers.LOWEST),
                        gate.isMissingNode()
                                ? null
                                : new RuleTerms.GateTerms(
                                        gate.path("criterion").asString(),
                                        gate.path("level").asInt(),
                                        gate.path("cap").asDouble())),
                json.path("asksExpectations").asBoolean(false),
                new RaterTerms(
                        constant(RaterTerms.ReasonRule.class, json.path("reasons"), RaterTerms.USUAL.reasons()),
                        json.path("showsReference").asBoolean(false),
                        json.path("asksSourceGuess").asBoolean(false),
                        constant(RaterTerms.TrialsShown.class, json.path("trialsShown"), RaterTerms.USUAL.trials())));
    }

    private static <E extends Enum<E>> E constant(Class<E> type, JsonNode node, E otherwise) {
        E read = Words.constant(type, node.isMissingNode() ? null : node.asString());
        return read == null ? otherwise : read;
    }

    private @Nullable KeptForecast forecast() {
        JsonNode forecast = json.at("/brief/forecast");
        return forecast.isMissingNode() ? null : JsonMapper.shared().treeToValue(forecast, KeptForecast.class);
    }

    private List<Reopening> reopenings() {
        List<Reopening> reopenings = new ArrayList<>();
        for (JsonNode r : json.at("/brief/reopenings")) {
            Instant closed = OffsetDateTime.parse(r.path("closedAt").asString()).toInstant();
            Instant reopened =
                    OffsetDateTime.parse(r.path("reopenedAt").asString()).toInstant();
            requireAfter(closed, reopened, "/brief/reopenings/" + reopenings.size() + "/reopenedAt");
            reopenings.add(new Reopening(
                    closed,
                    reopened,
                    r.path("by").asString(),
                    r.path("reason").asString(),
                    r.path("terms").asString()));
        }
        return reopenings;
    }

    private StudyArchive.RoundHead round() {
        JsonNode round = json.path("round");
        Instant opened = instant(round.path("openedAt"));
        requireAfter(opened, instant(round.path("closedAt")), "/round/closedAt");
        requireAfter(opened, instant(round.path("namesOpenedAt")), "/round/namesOpenedAt");
        return new StudyArchive.RoundHead(
                opened,
                instant(round.path("closedAt")),
                instant(round.path("namesOpenedAt")),
                round.has("ratersAnAnswer") ? round.path("ratersAnAnswer").asInt() : null,
                round.has("repeatShare") ? round.path("repeatShare").asDouble() : null);
    }

    /** What ends does so after it began. */
    private void requireAfter(@Nullable Instant begin, @Nullable Instant end, String pointer) {
        if (begin != null && end != null && end.isBefore(begin)) {
            faults.add(new Fault(path, null, pointer, "a time not before " + begin, end.toString()));
        }
    }

    private static @Nullable Instant instant(JsonNode node) {
        return node.isMissingNode()
                ? null
                : OffsetDateTime.parse(node.asString()).toInstant();
    }
}
