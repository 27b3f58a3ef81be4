package org.mossbank.server.archive;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Words;
import org.mossbank.server.study.Brief;
import org.mossbank.server.study.Reopening;
import org.mossbank.server.study.RuleTerms;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Writes a study's brief and the heads of its rubric and round; {@link StudyFileReader} reads them. */
final class StudyFile {
    private StudyFile() {}

    static ObjectNode of(StudyArchive.Head head) {
        Brief brief = head.brief();
        ObjectNode json = JsonMapper.shared().createObjectNode();
        json.put("title", head.title());
        json.put("question", brief.question());
        json.put("audience", brief.audience());
        json.put("background", brief.background());
        json.put("stage", head.preparing() ? "preparing" : "grading");
        json.put("asksExpectations", brief.asksExpectations());
        json.put("reasons", Words.of(brief.raters().reasons()));
        json.put("showsReference", brief.raters().showsReference());
        json.put("asksSourceGuess", brief.raters().asksSourceGuess());
        json.put("trialsShown", Words.of(brief.raters().trials()));
        json.put("seed", head.seed());
        if (head.mostFollowUps() != null) {
            json.put("mostFollowUps", head.mostFollowUps());
        }
        json.set("decisionRule", rule(brief.rule()));
        ObjectNode closing = json.putObject("brief");
        time(closing, "closedAt", head.briefClosedAt());
        if (head.forecast() != null) {
            closing.set("forecast", JsonMapper.shared().valueToTree(head.forecast()));
        }
        ArrayNode reopenings = closing.putArray("reopenings");
        for (Reopening r : head.reopenings()) {
            ObjectNode one = reopenings.addObject();
            time(one, "closedAt", r.closedAt());
            time(one, "reopenedAt", r.reopenedAt());
            one.put("by", r.by()).put("reason", r.reason()).put("terms", r.terms());
        }
        ObjectNode rubric =
                json.putObject("rubric").put("version", head.rubric().version());
        time(rubric, "publishedAt", head.rubric().publishedAt());
        rubric.put("note", head.rubric().note());
        if (!head.preparing()) {
            json.set("round", round(head.round()));
        }
        return json;
    }

    private static ObjectNode rule(RuleTerms terms) {
        ObjectNode json = JsonMapper.shared()
                .createObjectNode()
                .put("coefficient", Words.of(terms.coefficient()))
                .put("agreementFloor", Words.plain(terms.agreementFloor()))
                .put("floorOn", Words.of(terms.floorOn()))
                .put("margin", Words.plain(terms.margin()))
                .put("minimumRaters", terms.minimumRaters())
                .put("tieBreak", Words.of(terms.tieBreak()))
                .put("strictOnMasking", terms.strictOnMasking())
                .put("strictOnSplits", terms.strictOnSplits())
                .put("byKind", terms.byKind())
                .put("looks", terms.looks())
                .put("failedAnswers", Words.of(terms.failedAnswers()));
        RuleTerms.GateTerms gate = terms.gate();
        if (gate != null) {
            json.putObject("gate")
                    .put("criterion", gate.criterion())
                    .put("level", gate.level())
                    .put("cap", Words.plain(gate.cap()));
        }
        return json;
    }

    private static ObjectNode round(StudyArchive.RoundHead round) {
        ObjectNode json = JsonMapper.shared().createObjectNode();
        time(json, "openedAt", round.openedAt());
        time(json, "closedAt", round.closedAt());
        time(json, "namesOpenedAt", round.namesOpenedAt());
        if (round.ratersAnAnswer() != null) {
            json.put("ratersAnAnswer", round.ratersAnAnswer());
        }
        if (round.repeatShare() != null) {
            json.put("repeatShare", Words.plain(round.repeatShare()));
        }
        return json;
    }

    private static void time(ObjectNode json, String name, @Nullable Instant at) {
        if (at != null) {
            json.put(name, at.toString());
        }
    }
}
