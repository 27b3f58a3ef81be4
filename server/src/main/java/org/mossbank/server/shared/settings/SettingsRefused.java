package org.mossbank.server.shared.settings;

import java.util.List;
import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Settings with which the server does not start: all that is wrong with them at once, and no secret. */
final class SettingsRefused extends RuntimeException {
    private static final long serialVersionUID = 1L;

    SettingsRefused(List<String> faults) {
        super(String.join(System.lineSeparator(), faults));
    }

    /** Says it in place of a stack of calls. */
    static final class Analyzer extends AbstractFailureAnalyzer<SettingsRefused> {
        @Override
        protected FailureAnalysis analyze(Throwable failure, SettingsRefused refused) {
            return new FailureAnalysis(
                    String.valueOf(refused.getMessage()), "docs/settings.md says which settings there are.", refused);
        }
    }
}
