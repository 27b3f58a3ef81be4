package org.mossbank.server.provider;

import java.time.Duration;
import org.springframework.http.client.SimpleClientHttpRequestFactory;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestTemplate;

/** How a provider is asked: nobody waits for one that does not answer. */
final class Outgoing {
    private static final Duration PATIENCE = Duration.ofSeconds(5);

    private Outgoing() {}

    private static SimpleClientHttpRequestFactory requests() {
        SimpleClientHttpRequestFactory requests = new SimpleClientHttpRequestFactory();
        requests.setConnectTimeout(PATIENCE);
        requests.setReadTimeout(PATIENCE);
        return requests;
    }

    static RestTemplate template() {
        return new RestTemplate(requests());
    }

    static RestClient.Builder client() {
        return RestClient.builder().requestFactory(requests());
    }
}
