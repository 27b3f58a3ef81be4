package org.mossbank.server.source;

import java.net.InetAddress;
import org.springframework.boot.autoconfigure.condition.ConditionalOnMissingBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

@Configuration
class SourceConfiguration {
    @Bean
    @ConditionalOnMissingBean
    SourceClient.HostLookup hostLookup() {
        return InetAddress::getAllByName;
    }
}
