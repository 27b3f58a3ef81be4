package org.mossbank.server.archive;

import java.nio.file.Path;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * The demo, off unless asked for.
 *
 * @param folder the demo study, an unzipped archive
 */
@ConfigurationProperties("mossbank.demo")
record DemoSettings(boolean enabled, Path folder) {}
