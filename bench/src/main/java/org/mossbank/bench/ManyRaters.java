package org.mossbank.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A study with as many raters as a bench wants, each signed in. */
final class ManyRaters {
    private static final int PROMPTS = 10;
    private static final Duration PATIENCE = Duration.ofSeconds(60);
    private static final String PASSWORD = "a password to bench with";

    /** One for all, as two hundred of them would take more of the machine than the server does. */
    private static final HttpClient HTTP = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .executor(Executors.newFixedThreadPool(4, task -> {
                Thread thread = new Thread(task, "bench-http");
                // So that it does not outlive what it was for.
                thread.setDaemon(true);
                return thread;
            }))
            .build();

    private ManyRaters() {}

    /** One rater's browser. */
    record Rater(URI base, String cookies, String token) {
        int put(String path, String body, StringBuilder answer) {
            HttpRequest request = HttpRequest.newBuilder(URI.create(base + path))
                    .timeout(PATIENCE)
                    .header("Content-Type", "application/json")
                    .header("Cookie", cookies)
                    .header("X-XSRF-TOKEN", token)
                    .PUT(HttpRequest.BodyPublishers.ofString(body))
                    .build();
            return send(request, answer);
        }

        JsonNode get(String path) {
            StringBuilder answer = new StringBuilder();
            send(
                    HttpRequest.newBuilder(URI.create(base + path))
                            .timeout(PATIENCE)
                            .header("Cookie", cookies)
                            .build(),
                    answer);
            return JsonMapper.shared().readTree(answer.toString());
        }

        private static int send(HttpRequest request, StringBuilder answer) {
            try {
                HttpResponse<String> response = HTTP.send(request, HttpResponse.BodyHandlers.ofString());
                answer.append(response.body());
                return response.statusCode();
            } catch (IOException e) {
                answer.append(e);
                return 0;
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("interrupted", e);
            }
        }
    }

    /** Brings the study in and signs everybody in, as their one-time links let them. */
    static List<Rater> bringIn(ServerProcess server, int people) throws IOException {
        return bringIn(server.address(), people);
    }

    /** The same wherever servers are reached. */
    static List<Rater> bringIn(URI address, int people) throws IOException {
        ApiClient lead = ApiClient.signedIn(address, "orla", "tide and lantern");
        JsonNode brought =
                lead.upload("/api/studies/archive?again=true", archive(people)).json();
        List<Rater> raters = new ArrayList<>();
        for (JsonNode invitation : brought.path("invitations")) {
            ApiClient rater = ApiClient.nobody(address);
            rater.post(
                    "/api/links/use",
                    Map.of(
                            "token", invitation.path("token").asString(),
                            "displayName", invitation.path("name").asString(),
                            "password", PASSWORD));
            String session = rater.cookie("mossbank-session").orElseThrow();
            rater.get("/api/session");
            String token = rater.cookie("XSRF-TOKEN").orElseThrow();
            raters.add(new Rater(address, "mossbank-session=" + session + "; XSRF-TOKEN=" + token, token));
        }
        return raters;
    }

    static double at(List<Long> sorted, double share) {
        return sorted.get((int) Math.min(sorted.size() - 1, Math.floor(share * sorted.size()))) / 1e6;
    }

    static byte[] archive(int people) throws IOException {
        StringBuilder prompts = new StringBuilder("prompt,kind,title,file\n");
        StringBuilder answers = new StringBuilder("answer,prompt,candidate,attempt,outcome,file\n");
        StringBuilder raters = new StringBuilder("rater,name\n");
        for (int p = 0; p < PROMPTS; p++) {
            prompts.append("p%d,debugging,Prompt %d,text.md%n".formatted(p, p));
            for (int c = 0; c < 3; c++) {
                answers.append("p%d-c%d,p%d,c%d,1,complete,text.md%n".formatted(p, c, p, c));
            }
        }
        for (int r = 0; r < people; r++) {
            raters.append("bench%d,Bench %d%n".formatted(r, r));
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            put(zip, "datapackage.json", """
                    {"name": "bench", "mossbank": {"format": 1}, "resources": [
                    {"name": "study", "path": "study.json"}, {"name": "kinds", "path": "kinds.csv"},
                    {"name": "prompts", "path": "prompts.csv"}, {"name": "candidates", "path": "candidates.csv"},
                    {"name": "answers", "path": "answers.csv"}, {"name": "criteria", "path": "criteria.csv"},
                    {"name": "raters", "path": "raters.csv"}]}""");
            put(zip, "study.json", """
                    {"title": "Bench", "question": "How fast?", "audience": "us", "seed": 1,
                    "decisionRule": {"agreementFloor": 0.5, "margin": 5, "minimumRaters": 2}}""");
            put(zip, "kinds.csv", "kind,name\ndebugging,Debugging\n");
            put(zip, "candidates.csv", "candidate,name\nc0,One\nc1,Two\nc2,Three\n");
            put(zip, "criteria.csv", "criterion,name,question,weight,highest_level\na,A,?,1,4\nb,B,?,1,4\nc,C,?,1,4\n");
            put(zip, "prompts.csv", prompts.toString());
            put(zip, "answers.csv", answers.toString());
            put(zip, "raters.csv", raters.toString());
            put(zip, "text.md", "Some text. ".repeat(200));
        }
        return out.toByteArray();
    }

    private static void put(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }
}
