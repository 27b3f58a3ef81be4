package org.mossbank.server.description;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.PathItem;
import io.swagger.v3.oas.models.media.ArraySchema;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.IntegerSchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.responses.ApiResponses;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springdoc.core.customizers.GlobalOpenApiCustomizer;
import org.springdoc.core.customizers.GlobalOperationCustomizer;
import org.springframework.stereotype.Component;
import org.springframework.web.method.HandlerMethod;

/** What is said of each operation beside its parameters: a name, who may call it, and what it may refuse. */
@Component
class OpenApiOperations implements GlobalOperationCustomizer, GlobalOpenApiCustomizer {
    static final String PROBLEMS = "x-problems";

    private static final String SESSION = "session";
    private static final String CSRF = "csrf";
    private static final String PROBLEM = "Problem";
    /** Open to everybody. */
    private static final Set<String> PUBLIC = Set.of(
            "/api/session",
            "/api/setup",
            "/api/links/inspect",
            "/api/links/use",
            "/api/links/provider",
            "/api/sign-in",
            "/api/mail",
            "/api/links/address",
            "/api/links/lost",
            "/api/demo/sign-ins",
            "/api/memo-links/{token}");

    /** Whatever is called may come to these. */
    private static final Set<ProblemType> ANYWHERE = Set.of(
            ProblemType.BUSY,
            ProblemType.DATABASE_AWAY,
            ProblemType.INTERNAL,
            ProblemType.OTHER_ACCOUNT,
            ProblemType.TOO_MANY_REQUESTS);

    /** Kept until it is known where the operation stands. */
    @Override
    public Operation customize(Operation operation, HandlerMethod handler) {
        MayRefuse own = handler.getMethodAnnotation(MayRefuse.class);
        operation.addExtension(
                PROBLEMS,
                own == null
                        ? List.of()
                        : Arrays.stream(own.value()).map(ProblemType::slug).toList());
        return operation;
    }

    @Override
    public void customise(OpenAPI api) {
        api.getComponents().addSecuritySchemes(SESSION, inCookie("mossbank-session", "Set by signing in."));
        api.getComponents()
                .addSecuritySchemes(
                        CSRF,
                        new SecurityScheme()
                                .type(SecurityScheme.Type.APIKEY)
                                .in(SecurityScheme.In.HEADER)
                                .name("X-XSRF-TOKEN")
                                .description(
                                        "The value of the cookie XSRF-TOKEN, with everything that changes something."));
        api.getComponents().addSchemas(PROBLEM, problem());
        Optional.ofNullable(api.getPaths().get("/api/session")).ifPresent(session -> session.delete(signOut()));
        api.getPaths()
                .forEach((path, item) -> item.readOperationsMap().forEach((method, o) -> complete(path, method, o)));
    }

    private static SecurityScheme inCookie(String name, String description) {
        return new SecurityScheme()
                .type(SecurityScheme.Type.APIKEY)
                .in(SecurityScheme.In.COOKIE)
                .name(name)
                .description(description);
    }

    /** Done by the security filter, which describes nothing. */
    private static Operation signOut() {
        Operation out = new Operation().summary("Signs out.").addTagsItem("session-controller");
        out.setResponses(new ApiResponses().addApiResponse("204", new ApiResponse().description("No Content")));
        out.addExtension(PROBLEMS, List.of());
        return out;
    }

    private static void complete(String path, PathItem.HttpMethod method, Operation operation) {
        operation.setOperationId(id(path, method));
        summarise(operation);
        SecurityRequirement needs = new SecurityRequirement();
        if (!PUBLIC.contains(path)) {
            needs.addList(SESSION);
        }
        if (method != PathItem.HttpMethod.GET) {
            needs.addList(CSRF);
        }
        operation.setSecurity(needs.isEmpty() ? List.of() : List.of(needs));
        refusals(path, method, operation);
    }

    /** The first sentence; the whole stays where there is more. */
    private static void summarise(Operation operation) {
        String whole = operation.getDescription();
        if (whole == null) {
            return;
        }
        int end = whole.indexOf(". ");
        operation.setSummary(end < 0 ? whole : whole.substring(0, end + 1));
        if (end < 0) {
            operation.setDescription(null);
        }
    }

    /** The method, then the words of the path, one thing of many in the singular. */
    static String id(String path, PathItem.HttpMethod method) {
        StringBuilder id = new StringBuilder(method.name().toLowerCase(Locale.ROOT));
        String[] parts = path.substring("/api/".length()).split("/");
        for (int i = 0; i < parts.length; i++) {
            boolean oneOfMany = i + 1 < parts.length && parts[i + 1].startsWith("{");
            if (!parts[i].startsWith("{")) {
                Arrays.stream((oneOfMany ? singular(parts[i]) : parts[i]).split("-"))
                        .forEach(w ->
                                id.append(Character.toUpperCase(w.charAt(0))).append(w.substring(1)));
                if (oneOfMany && singular(parts[i]).equals(parts[i])) {
                    id.append("One");
                }
            }
        }
        return id.toString();
    }

    private static String singular(String word) {
        return word.endsWith("ies")
                ? word.substring(0, word.length() - 3) + "y"
                : word.endsWith("s") ? word.substring(0, word.length() - 1) : word;
    }

    private static void refusals(String path, PathItem.HttpMethod method, Operation operation) {
        Map<Integer, Set<ProblemType>> byStatus = new TreeMap<>();
        for (ProblemType type : types(path, method, operation)) {
            byStatus.computeIfAbsent(type.status().value(), s -> new TreeSet<>())
                    .add(type);
        }
        byStatus.forEach((status, types) -> operation
                .getResponses()
                .addApiResponse(
                        String.valueOf(status),
                        response(types.stream()
                                .map(t -> t.slug() + ": " + t.title())
                                .collect(Collectors.joining("; ")))));
        operation
                .getResponses()
                .addApiResponse(
                        "default",
                        response("Any refusal; where nothing else is said, the server cannot at the moment."));
        operation.addExtension(
                PROBLEMS,
                byStatus.values().stream()
                        .flatMap(Set::stream)
                        .map(ProblemType::slug)
                        .sorted()
                        .toList());
    }

    private static Set<ProblemType> types(String path, PathItem.HttpMethod method, Operation operation) {
        Set<ProblemType> types = new TreeSet<>(ANYWHERE);
        if (operation.getExtensions().get(PROBLEMS) instanceof List<?> own) {
            Arrays.stream(ProblemType.values())
                    .filter(t -> own.contains(t.slug()))
                    .forEach(types::add);
        }
        if (!PUBLIC.contains(path)) {
            types.add(ProblemType.NOT_SIGNED_IN);
            types.add(ProblemType.NOT_ALLOWED);
        }
        if (method != PathItem.HttpMethod.GET) {
            // Two may change the same at the same moment, wherever something is changed.
            types.addAll(List.of(ProblemType.NOT_ALLOWED, ProblemType.DATABASE_FULL, ProblemType.CHANGED_ELSEWHERE));
        }
        if (path.contains("{")) {
            types.addAll(List.of(ProblemType.NOT_FOUND, ProblemType.MALFORMED_REQUEST));
        }
        if (operation.getParameters() != null && !operation.getParameters().isEmpty()) {
            types.add(ProblemType.MALFORMED_REQUEST);
            if (operation.getParameters().stream()
                    .anyMatch(p -> "query".equals(p.getIn())
                            && (Boolean.TRUE.equals(p.getRequired()) || isBounded(p.getSchema())))) {
                // One that is left out, or lies outside its bounds.
                types.add(ProblemType.INVALID_REQUEST);
            }
        }
        if (operation.getRequestBody() != null) {
            types.addAll(List.of(ProblemType.MALFORMED_REQUEST, ProblemType.INVALID_REQUEST, ProblemType.TOO_LARGE));
        }
        return types;
    }

    private static boolean isBounded(Schema<?> of) {
        return of.getMinimum() != null || of.getMaximum() != null || of.getMaxLength() != null;
    }

    private static ApiResponse response(String description) {
        Schema<?> reference = new Schema<>().$ref("#/components/schemas/" + PROBLEM);
        return new ApiResponse()
                .description(description)
                .content(new Content().addMediaType("application/problem+json", new MediaType().schema(reference)));
    }

    private static Schema<?> problem() {
        StringSchema type = new StringSchema();
        type.description("Says what sort of refusal it is; never changes.");
        new ArrayList<>(Arrays.asList(ProblemType.values()))
                .forEach(t -> type.addEnumItem(ProblemType.TYPES + t.slug()));
        ObjectSchema fields = new ObjectSchema();
        fields.addProperty("field", new StringSchema());
        fields.addProperty("message", new StringSchema());
        ObjectSchema fault = new ObjectSchema();
        fault.addProperty("file", new StringSchema());
        fault.addProperty("line", new IntegerSchema());
        fault.addProperty("field", new StringSchema());
        fault.addProperty("expected", new StringSchema());
        fault.addProperty("found", new StringSchema());
        ObjectSchema problem = new ObjectSchema();
        problem.description("A refusal (RFC 9457).");
        problem.addProperty("type", type);
        problem.addProperty(
                "title", new StringSchema().description("What is refused, in a few words that never change."));
        problem.addProperty("status", new IntegerSchema().description("The HTTP status."));
        problem.addProperty("detail", new StringSchema().description("What was wrong, for people."));
        problem.addProperty("instance", new StringSchema().description("The path that was called."));
        problem.addProperty(
                "errors", new ArraySchema().items(fields).description("Fields that are not as they must be."));
        problem.addProperty("faults", new ArraySchema().items(fault).description("Faults in a file."));
        problem.addProperty(
                "current", new Schema<>().description("What stands there now, where it was changed elsewhere."));
        problem.setRequired(List.of("type", "title", "status"));
        return problem;
    }
}
