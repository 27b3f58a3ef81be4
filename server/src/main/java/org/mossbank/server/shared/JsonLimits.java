package org.mossbank.server.shared;

import org.springframework.boot.jackson.autoconfigure.JsonFactoryBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.core.StreamReadConstraints;

/** What JSON that is sent to us may be like; far more than any form of ours, and far less than would keep us busy. */
@Configuration(proxyBeanMethods = false)
class JsonLimits {
    private static final int DEEPEST = 40;
    private static final int LONGEST_NUMBER = 40;
    private static final int LONGEST_NAME = 200;

    /** Characters; a little more than the longest text that a field takes, so that the field says what is wrong. */
    private static final int LONGEST_TEXT = 5 << 20;

    private static final int MOST_TOKENS = 500_000;

    @Bean
    JsonFactoryBuilderCustomizer bounded() {
        return factory -> factory.streamReadConstraints(StreamReadConstraints.builder()
                .maxNestingDepth(DEEPEST)
                .maxNumberLength(LONGEST_NUMBER)
                .maxNameLength(LONGEST_NAME)
                .maxStringLength(LONGEST_TEXT)
                .maxTokenCount(MOST_TOKENS)
                .build());
    }
}
