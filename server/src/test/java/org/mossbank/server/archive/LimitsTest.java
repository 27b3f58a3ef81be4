package org.mossbank.server.archive;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.mossbank.server.ServerTest;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * What the documents of an archive may hold is what can be written in the product, and the other way round: each limit is that
 * of the property it is written with. Columns of tables take their limits from those properties by themselves, and so does the
 * client from the same description.
 */
public class LimitsTest {
    private static final Path ROOT = ServerTest.ROOT;
    private static final Path SCHEMAS = ROOT.resolve("docs/formats/schemas");

    /** Places in documents and the properties they come from; [] for each of a list, # for how many a list may have. */
    private static final Map<String, String> SAME = lines("""
            answer-line.candidate        CandidateContent.name
            answer-line.follow_ups       AddAnswer.followUps#
            answer-line.follow_ups.asked FollowUp.asked
            answer-line.model            Measures.model
            answer-line.prompt           PromptContent.title
            rubric-history.versions.criteria.floor               CriterionContent.floor
            rubric-history.versions.criteria.levels              CriterionContent.levels#
            rubric-history.versions.criteria.levels.anchors      AnchorContent.text
            rubric-history.versions.criteria.levels.name         LevelContent.name
            rubric-history.versions.criteria.name                CriterionContent.name
            rubric-history.versions.criteria.question            CriterionContent.question
            rubric-history.versions.criteria.traits              CriterionContent.traits#
            rubric-history.versions.criteria.traits[]            CriterionContent.traits[]
            rubric-history.versions.criteria.weight              CriterionContent.weight
            rubric-history.versions.criteria                     WriteRubric.criteria#
            rubric-history.versions.note                         PublishRubric.note
            study.audience               Brief.audience
            study.background             Brief.background
            study.brief.reopenings.by    UseLink.displayName
            study.brief.reopenings.reason ReopenBrief.reason
            study.decisionRule.agreementFloor RuleTerms.agreementFloor
            study.decisionRule.gate.cap  GateTerms.cap
            study.decisionRule.gate.level GateTerms.level
            study.decisionRule.looks     RuleTerms.looks
            study.decisionRule.margin    RuleTerms.margin
            study.decisionRule.minimumRaters RuleTerms.minimumRaters
            study.mostFollowUps          WriteFollowUpRule.most
            study.question               Brief.question
            study.round.ratersAnAnswer   PlanRequest.ratersAnAnswer
            study.round.repeatShare      PlanRequest.repeatShare
            study.rubric.note            PublishRubric.note
            study.title                  BeginStudy.title
            """);

    /**
     * What no property has: what was measured or worked out, and bounds of a list that grows by
     * itself.
     */
    private static final Set<String> OF_THE_FORMAT = words("""
            answer-line.attempt answer-line.cost answer-line.first_output_ms answer-line.input_tokens
            answer-line.output_tokens answer-line.total_ms answer-line.tries rubric-history.versions
            rubric-history.versions.version study.brief.reopenings study.brief.reopenings.terms study.rubric.version
            study.seed
            study.brief.forecast.attempts study.brief.forecast.candidates study.brief.forecast.leads
            study.brief.forecast.leads.byKind study.brief.forecast.leads.points study.brief.forecast.leads.recommended
            study.brief.forecast.leads.safeChoices study.brief.forecast.leads.undecided
            study.brief.forecast.leads.withheld study.brief.forecast.leads.wrong study.brief.forecast.margin
            study.brief.forecast.prompts study.brief.forecast.raters study.brief.forecast.ratersAnAnswer
            study.brief.forecast.smallestLead study.brief.forecast.studies
            """);

    private final JsonNode described = JsonMapper.shared()
            .readTree(ROOT.resolve("web/openapi.json").toFile())
            .at("/components/schemas");

    private static Map<String, String> lines(String table) {
        return table.lines()
                .map(l -> l.strip().split(" +"))
                .collect(Collectors.toMap(l -> l[0], l -> l[1], (a, b) -> a, TreeMap::new));
    }

    private static Set<String> words(String list) {
        return Arrays.stream(list.strip().split("\\s+")).collect(Collectors.toCollection(TreeSet::new));
    }

    /** The most that a rule allows: characters, items or a number; none is null. */
    private static Double most(JsonNode rules) {
        return Stream.of("maxLength", "maxItems", "maximum")
                .filter(rules::has)
                .map(r -> rules.path(r).asDouble())
                .findFirst()
                .orElse(null);
    }

    private static Map<String, Double> limitsOfTheFormat() throws Exception {
        Map<String, Double> limits = new TreeMap<>();
        try (Stream<Path> files = Files.list(SCHEMAS)) {
            for (Path file : files.toList()) {
                String name = file.getFileName().toString().replace(".schema.json", "");
                JsonNode schema = JsonMapper.shared().readTree(file.toFile());
                collect(limits, name, schema);
            }
        }
        return limits;
    }

    private static void collect(Map<String, Double> limits, String name, JsonNode schema) {
        schema.path("properties").forEachEntry((property, rules) -> {
            String path = name + "." + property;
            put(limits, path, rules);
            put(limits, path, rules.path("additionalProperties"));
            put(limits, path + "[]", rules.path("items"));
            collect(limits, path, rules);
            collect(limits, path, rules.path("items"));
        });
    }

    private static void put(Map<String, Double> limits, String name, JsonNode rules) {
        Double most = most(rules);
        if (most != null) {
            limits.put(name, most);
        }
    }

    private Double ofProperty(String address) {
        String plain = address.replaceAll("[\\[\\]#]", "");
        String[] parts = plain.split("\\.");
        JsonNode property = described.path(parts[0]).path("properties").path(parts[1]);
        return most(address.endsWith("[]") ? property.path("items") : property);
    }

    @Test
    public void theFormatTakesWhatTheProductTakes() throws Exception {
        Map<String, Double> format = limitsOfTheFormat();
        Map<String, Double> product = new TreeMap<>();
        SAME.forEach((column, property) -> product.put(column, ofProperty(property)));
        format.keySet().removeAll(OF_THE_FORMAT);

        assertThat(format).containsExactlyEntriesOf(product);
    }

    @Test
    public void whatTheFormatBoundsByItselfIsBounded() throws Exception {
        assertThat(limitsOfTheFormat().keySet())
                .filteredOn(Predicate.not(SAME::containsKey))
                .containsExactlyElementsOf(OF_THE_FORMAT);
    }
}
