package org.mossbank.server.shared;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.valves.ErrorReportValve;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** What never reaches a filter, such as a request that is none, is refused in the form of all other problems. */
@Component
class ContainerErrors implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {
    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.addContextCustomizers(context -> {
            if (context.getParent() instanceof StandardHost host) {
                host.setErrorReportValveClass(ProblemValve.class.getName());
            }
        });
    }

    /** Made by the container, hence public and without arguments. */
    public static final class ProblemValve extends ErrorReportValve {
        private static final int FIRST_ERROR = 400;
        private static final int FIRST_OF_SERVER = 500;

        @Override
        protected void report(Request request, Response response, Throwable thrown) {
            int status = response.getStatus();
            if (status < FIRST_ERROR || response.getContentWritten() > 0 || !response.setErrorReported()) {
                return;
            }
            Problem problem = status >= FIRST_OF_SERVER
                    ? new Problem(ProblemType.INTERNAL, "The server could not do this.")
                    : new Problem(ProblemType.MALFORMED_REQUEST, "The request cannot be understood.");
            try {
                response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
                response.setCharacterEncoding(StandardCharsets.UTF_8.name());
                response.getReporter().write(JsonMapper.shared().writeValueAsString(problem.getBody()));
                response.finishResponse();
            } catch (IOException e) {
                // Whoever asked has gone.
            }
        }
    }
}
