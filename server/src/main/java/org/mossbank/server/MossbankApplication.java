package org.mossbank.server;

import java.time.Clock;
import java.time.OffsetDateTime;
import org.mossbank.server.shared.database.DatabaseClock;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.boot.security.autoconfigure.UserDetailsServiceAutoConfiguration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Lazy;
import org.springframework.jdbc.core.simple.JdbcClient;

/** The one deployable. Starts with everything under this package. */
@SpringBootApplication(exclude = UserDetailsServiceAutoConfiguration.class)
@ConfigurationPropertiesScan
public class MossbankApplication {
    public static void main(String[] arguments) {
        SpringApplication.run(MossbankApplication.class, arguments);
    }

    /** Made at the start, so that no request asks for a connection to read the time with. */
    @Bean
    @Lazy(false)
    Clock clock(JdbcClient database) {
        return DatabaseClock.kept(() -> database.sql("select clock_timestamp()")
                .query(OffsetDateTime.class)
                .single()
                .toInstant());
    }
}
