package org.mossbank.bench;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.mossbank.testkit.TestDatabase;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Raters who each give a grade every two seconds; all on loopback. Afterwards every acknowledged grade is looked for in the
 * history of changes: each must be there once, and the last one of a cell must be what stands.
 */
final class GradingLoad {
    private static final Duration EVERY = Duration.ofSeconds(2);
    private static final int SENDERS = 64;
    /** What a browser meets while a server is gone, and sends again for. */
    private static final Set<Integer> AWAY = Set.of(0, 502, 503, 504);

    private static final Duration PAUSE = Duration.ofMillis(500);
    private static final int MOST_TRIES = 60;

    private static final String OF_THE_BENCH = """
             join sheet_answer a on a.id = c.sheet_answer_id join sheet s on s.id = a.sheet_id
            join study t on t.id = s.study_id
            where c.part = 'GRADE' and t.title = 'Bench'""";

    private final Duration warmUp;
    private final Duration span;
    private final boolean patient;
    private final AtomicInteger resent = new AtomicInteger();

    GradingLoad(Duration warmUp, Duration span) {
        this(warmUp, span, false);
    }

    /** @param patient whether raters send again, as browsers do, what no server answered */
    GradingLoad(Duration warmUp, Duration span, boolean patient) {
        this.patient = patient;
        this.warmUp = warmUp;
        this.span = span;
    }

    /** A cell of a sheet, its revision and the ids of the changes acknowledged. */
    private static final class Cell {
        private final String path;
        private long revision;
        private String lastChange = "";

        private Cell(String path, long revision) {
            this.path = path;
            this.revision = revision;
        }
    }

    private final Map<String, Integer> acknowledged = new ConcurrentHashMap<>();
    private final Map<String, Cell> byLastChange = new ConcurrentHashMap<>();
    private final List<ManyRaters.Rater> raters = new ArrayList<>();
    private final List<List<Cell>> cells = new ArrayList<>();
    private final List<Long> nanos = new ArrayList<>();
    private int errors;
    private long begun;

    /** Each rater opens all their sheets. */
    void open(List<ManyRaters.Rater> people) {
        raters.addAll(people);
        cells.addAll(people.parallelStream().map(GradingLoad::cellsOf).toList());
        if (cells.stream().anyMatch(List::isEmpty)) {
            throw new IllegalStateException("a rater has nothing to grade");
        }
    }

    void run() throws InterruptedException {
        ScheduledExecutorService pool = Executors.newScheduledThreadPool(SENDERS);
        List<Future<?>> raterTasks = new ArrayList<>();
        begun = System.nanoTime();
        for (int r = 0; r < raters.size(); r++) {
            ManyRaters.Rater rater = raters.get(r);
            List<Cell> own = cells.get(r);
            int[] next = {0};
            raterTasks.add(pool.scheduleAtFixedRate(
                    () -> grade(rater, own.get(next[0]++ % own.size())),
                    ThreadLocalRandom.current().nextLong(EVERY.toMillis()),
                    EVERY.toMillis(),
                    TimeUnit.MILLISECONDS));
        }
        Thread.sleep(warmUp.plus(span).toMillis());
        // A task that threw is not run again, and would say nothing.
        errors += (int) raterTasks.stream().filter(Future::isDone).count();
        raterTasks.forEach(t -> t.cancel(false));
        pool.shutdown();
        pool.awaitTermination(1, TimeUnit.MINUTES);
    }

    private static List<Cell> cellsOf(ManyRaters.Rater rater) {
        List<Cell> cells = new ArrayList<>();
        for (JsonNode summary : rater.get("/api/sheets")) {
            String sheet = "/api/sheets/" + summary.path("id").asString();
            for (JsonNode answer : rater.get(sheet).path("answers")) {
                for (JsonNode grade : answer.path("grades")) {
                    cells.add(new Cell(
                            sheet + "/answers/" + answer.path("id").asString() + "/grades/"
                                    + grade.path("criterionId").asString(),
                            grade.path("revision").asLong()));
                }
            }
        }
        return cells;
    }

    private void grade(ManyRaters.Rater rater, Cell cell) {
        String change = UUID.randomUUID().toString();
        String body = "{\"changeId\":\"%s\",\"baseRevision\":%d,\"level\":%d,\"notApplicable\":false}"
                .formatted(change, cell.revision, ThreadLocalRandom.current().nextInt(5));
        StringBuilder answer = new StringBuilder();
        long start = System.nanoTime();
        int status = rater.put(cell.path, body, answer);
        for (int tries = 1; patient && AWAY.contains(status) && tries < MOST_TRIES; tries++) {
            LockSupport.parkNanos(PAUSE.toNanos());
            answer.setLength(0);
            resent.incrementAndGet();
            status = rater.put(cell.path, body, answer);
        }
        long took = System.nanoTime() - start;
        synchronized (this) {
            if (status != 200) {
                errors++;
                System.err.println(status + " " + answer);
                return;
            }
            cell.revision = JsonMapper.shared()
                    .readTree(answer.toString())
                    .path("revision")
                    .asLong();
            acknowledged.merge(change, 1, Integer::sum);
            byLastChange.remove(cell.lastChange);
            cell.lastChange = change;
            byLastChange.put(change, cell);
            if (start - begun > warmUp.toNanos()) {
                nanos.add(took);
            }
        }
    }

    void report(int people) {
        nanos.sort(null);
        System.out.printf(
                "%d raters, a grade every %d s each, for %d s after %d s of warming up: %d grades acknowledged,"
                        + " %.0f a second; median %.1f ms, 95th percentile %.1f ms, 99th %.1f ms, slowest %.1f ms; %d sent again, %d errors%n",
                people,
                EVERY.toSeconds(),
                span.toSeconds(),
                warmUp.toSeconds(),
                nanos.size(),
                nanos.size() / (double) span.toSeconds(),
                ManyRaters.at(nanos, 0.5),
                ManyRaters.at(nanos, 0.95),
                ManyRaters.at(nanos, 0.99),
                ManyRaters.at(nanos, 1),
                resent.get(),
                errors);
    }

    /** Whether each change that was acknowledged is there, once, and no other; and what stands is what was set last. */
    boolean isComplete(TestDatabase database) throws SQLException {
        Map<String, Integer> written = new HashMap<>();
        int standing = 0;
        try (Connection connection = database.connect()) {
            try (ResultSet rows = connection
                    .createStatement()
                    .executeQuery("select c.change_id from grading_change c" + OF_THE_BENCH)) {
                while (rows.next()) {
                    written.merge(rows.getString(1), 1, Integer::sum);
                }
            }
            try (ResultSet rows = connection
                    .createStatement()
                    .executeQuery("select c.change_id from grading_change c" + OF_THE_BENCH + """
                     and exists (select 1 from grade g where g.sheet_answer_id = c.sheet_answer_id
                        and g.criterion_id::text = c.item and g.revision = c.revision
                        and g.level = (c.value::json ->> 'level')::int)""")) {
                while (rows.next()) {
                    standing += byLastChange.containsKey(rows.getString(1)) ? 1 : 0;
                }
            }
        }
        System.out.printf(
                "history: %d changes acknowledged, %d written, %s; %d of %d cells stand as they were set last%n",
                acknowledged.size(),
                written.size(),
                written.equals(acknowledged) ? "the same ones, each once" : "NOT THE SAME",
                standing,
                byLastChange.size());
        return errors == 0 && written.equals(acknowledged) && standing == byLastChange.size();
    }
}
