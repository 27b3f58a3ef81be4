package org.mossbank.server.figures;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CopyOnWriteArrayList;
import org.mossbank.server.ServerTest;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.database.Statistics;
import org.springframework.aop.support.AopUtils;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.support.StaticListableBeanFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.util.ReflectionTestUtils;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Figures outlive the server that worked them out, and nothing that they hang on. */
public class KeptFiguresTest extends ServerTest {
    @Autowired
    private KeptFigures kept;

    @Autowired
    private JdbcClient database;

    @Autowired
    private Statistics statistics;

    @Autowired
    private ObjectProvider<WorkedOutAhead> ahead;

    private String study;

    @BeforeClass(dependsOnMethods = "springTestContextPrepareTestInstance")
    public void close() {
        study = copyOfTheDemo();
        recommendation(as(LEAD), study);
    }

    @DataProvider
    public Object[][] figures() {
        return new Object[][] {
            {"agreement", "/agreement"},
            {"diagnosis", "/agreement/diagnosis"},
            {"recommendation", "/recommendation"},
            {"robustness", "/recommendation/robustness"},
            {"prompt-table", "/recommendation/prompts"},
            {"traits", "/recommendation/traits"},
            {"costs", "/recommendation/costs"},
            {"work", "/recommendation/work"},
            {"groups", "/recommendation/groups"},
            {"oversight", "/oversight"}
        };
    }

    private String get(String what) {
        return as(LEAD).get("/api/studies/" + study + what).body();
    }

    /** As a server does that starts anew. */
    private void forgetWhatIsInMemory() {
        ((Map<?, ?>) ReflectionTestUtils.getField(kept, "inMemory")).clear();
    }

    private String inDatabase(String sort) {
        return database.sql("select figures from kept_figure where study_id = ? and sort = ?")
                .params(UUID.fromString(study), sort)
                .query(String.class)
                .single();
    }

    private void change(String sort, String column, Object value) {
        database.sql("update kept_figure set " + column + " = ? where study_id = ? and sort = ?")
                .params(value, UUID.fromString(study), sort)
                .update();
    }

    @Test(dataProvider = "figures")
    public void areTheSameAfterAnewStart(String sort, String path) {
        String first = get(path);
        assertThat(first).doesNotContain("\"type\":\"https://mossbank.example/problems");
        assertThat(inDatabase(sort)).isNotEmpty();
        forgetWhatIsInMemory();
        assertThat(get(path)).isEqualTo(first);
    }

    @Test(dependsOnMethods = "areTheSameAfterAnewStart")
    public void areReadUnlessOtherCodeOrOtherGradesMadeThem() {
        String worked = get("/recommendation");
        String headline = as(LEAD).get("/api/studies/" + study + "/recommendation")
                .json()
                .path("headline")
                .asString();
        change("recommendation", "figures", inDatabase("recommendation").replace(headline, "As it was kept."));
        forgetWhatIsInMemory();
        assertThat(get("/recommendation")).contains("As it was kept.");

        change("recommendation", "code", "of another build");
        forgetWhatIsInMemory();
        assertThat(get("/recommendation")).isEqualTo(worked);

        change("recommendation", "figures", "not even JSON");
        forgetWhatIsInMemory();
        assertThat(get("/recommendation")).isEqualTo(worked);

        change("recommendation", "figures", inDatabase("recommendation").replace(headline, "As it was kept."));
        round("reopen");
        round("close");
        assertThat(get("/recommendation")).contains(headline).doesNotContain("As it was kept.");
    }

    private void round(String what) {
        var done = as(LEAD).post("/api/studies/" + study + "/round/" + what, Map.of("reason", "One more look."));
        assertThat(done.status()).as(done.body()).isBetween(200, 204);
    }

    /** As after an import: each sort of figures is there before anybody asks, and what is opened first comes first. */
    @Test
    public void allAreWorkedOutAhead() {
        String fresh = copyOfTheDemo();
        as(LEAD).post("/api/studies/" + fresh + "/round/close", Map.of("reason", "Enough is graded."));
        database.sql("delete from kept_figure where study_id = ?")
                .params(UUID.fromString(fresh))
                .update();
        forgetWhatIsInMemory();
        new FiguresAhead(ahead, statistics, true).now(StudyId.from(fresh));
        assertThat(sortsOf(fresh)).hasSize(7);
        List<String> order = ahead.orderedStream()
                .map(w -> AopUtils.getTargetClass(w).getSimpleName())
                .toList();
        assertThat(order)
                .contains("RecommendationReports", "PromptTableAhead", "Agreements", "RobustnessAhead", "SearchedAhead")
                .hasSize(6);
        assertThat(order.indexOf("RobustnessAhead"))
                .isGreaterThan(order.indexOf("RecommendationReports"))
                .isGreaterThan(order.indexOf("PromptTableAhead"))
                .isLessThan(order.indexOf("Agreements"));
    }

    /** Where nothing is worked out ahead, only what an act tells of is kept after it. */
    @Test
    public void whatARoundGaveIsThereWhenItIsClosed() {
        String fresh = copyOfTheDemo();
        FiguresAhead working = applicationContext.getBean(FiguresAhead.class);
        ReflectionTestUtils.setField(working, "wanted", true);
        try {
            as(LEAD).post("/api/studies/" + fresh + "/round/close", Map.of("reason", "Enough is graded."));
            assertThat(sortsOf(fresh)).contains("diagnosis", "robustness");
        } finally {
            ReflectionTestUtils.setField(working, "wanted", false);
        }
    }

    private List<String> sortsOf(String of) {
        return database.sql("select sort from kept_figure where study_id = ?")
                .params(UUID.fromString(of))
                .query(String.class)
                .list();
    }

    /** Whoever brings a study in waits already; so what takes long is there when it came in. */
    @Test
    public void figuresAreThereWhenAStudyCameIn() {
        String fresh = copyOfTheDemo();
        as(LEAD).post("/api/studies/" + fresh + "/round/close", Map.of("reason", "Enough is graded."));
        database.sql("delete from kept_figure where study_id = ?")
                .params(UUID.fromString(fresh))
                .update();
        forgetWhatIsInMemory();
        new FiguresAhead(ahead, statistics, true).cameIn(StudyId.from(fresh), 0);
        assertThat(sortsOf(fresh)).contains("recommendation", "agreement", "prompt-table", "robustness", "diagnosis");
    }

    @Test
    public void oneThatFailsHoldsUpNoOther() {
        StudyId study = StudyId.random();
        List<StudyId> worked = new CopyOnWriteArrayList<>();
        WorkedOutAhead fails = s -> {
            throw new IllegalStateException("cannot be worked out");
        };
        WorkedOutAhead works = worked::add;
        new FiguresAhead(
                        new StaticListableBeanFactory(new java.util.LinkedHashMap<>(Map.of("a", fails, "b", works)))
                                .getBeanProvider(WorkedOutAhead.class),
                        statistics,
                        true)
                .now(study);
        assertThat(worked).containsExactly(study);
    }
}
