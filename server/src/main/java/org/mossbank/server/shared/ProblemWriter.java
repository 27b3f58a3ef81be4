package org.mossbank.server.shared;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Writes problems from filters, where no controller advice reaches. */
@Component
public class ProblemWriter {
    private final JsonMapper mapper;

    ProblemWriter(JsonMapper mapper) {
        this.mapper = mapper;
    }

    public void write(HttpServletResponse response, ProblemType type, String detail) throws IOException {
        write(response, new Problem(type, detail));
    }

    void write(HttpServletResponse response, Problem problem) throws IOException {
        response.setStatus(problem.getStatusCode().value());
        problem.getHeaders().forEach((name, values) -> values.forEach(v -> response.addHeader(name, v)));
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setCharacterEncoding("UTF-8");
        mapper.writeValue(response.getOutputStream(), problem.getBody());
    }
}
