package org.mossbank.server.archive;

import java.nio.file.Path;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * The demo, off unless asked for.
 *
 * @param folder the demo's studies, unzipped archives; the first is the newest
 */
@ConfigurationProperties("mossbank.demo")
record DemoSettings(boolean enabled, List<Path> folder) {}
