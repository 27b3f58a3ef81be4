package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.UncheckedIOException;
import java.net.URI;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.mossbank.testkit.ApiClient;
import tools.jackson.databind.JsonNode;

/** Somebody who talks about a split until the server is gone, and what it had acknowledged. */
final class WordsUnderWay {
    private static final String PASSWORD = "tide and lantern";
    private static final int ENOUGH = 20;

    private final ConcurrentLinkedQueue<String> acknowledged = new ConcurrentLinkedQueue<>();
    private final CountDownLatch enough = new CountDownLatch(ENOUGH);
    private final ExecutorService talker = Executors.newSingleThreadExecutor();
    private String split = "";

    void begin(URI address) {
        ApiClient bram = ApiClient.signedIn(address, "bram", PASSWORD);
        split = bram.get("/api/splits")
                .json()
                .path("splits")
                .valueStream()
                .filter(s -> s.path("state").asString().equals("OPEN"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        talker.execute(() -> talkUntilTheServerIsGone(bram));
        talker.shutdown();
    }

    private void talkUntilTheServerIsGone(ApiClient bram) {
        try {
            for (int i = 0; ; i++) {
                String words = "Line " + i + ".";
                ApiClient.Response response = bram.post(
                        "/api/splits/" + split + "/words",
                        Map.of("id", UUID.randomUUID().toString(), "words", words));
                if (response.status() != 200) {
                    return;
                }
                acknowledged.add(words);
                enough.countDown();
            }
        } catch (UncheckedIOException e) {
            // The kill; what was acknowledged until then is what counts.
        }
    }

    void awaitEnough() throws InterruptedException {
        assertThat(enough.await(3, TimeUnit.MINUTES)).isTrue();
    }

    void areThere(URI address) throws InterruptedException {
        assertThat(talker.awaitTermination(2, TimeUnit.MINUTES)).isTrue();
        List<String> found = ApiClient.signedIn(address, "bram", PASSWORD)
                .get("/api/splits/" + split)
                .json()
                .path("words")
                .valueStream()
                .filter(w -> w.path("own").asBoolean())
                .map((JsonNode w) -> w.path("words").asString())
                .filter(w -> w.startsWith("Line "))
                .toList();
        // One more may have been written whose answer the kill cut off; none may be lost, and none twice.
        assertThat(found).containsAll(acknowledged).doesNotHaveDuplicates();
        assertThat(found.size()).isBetween(acknowledged.size(), acknowledged.size() + 1);
    }
}
