package org.mossbank.server.provider;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Pattern;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.validation.annotation.Validated;

/**
 * Providers of sign-ins, by the name that stands in addresses.
 *
 * @param providers absent where there is none
 */
@Validated
@ConfigurationProperties("mossbank")
record ProviderSettings(@Nullable Map<@Pattern(regexp = "[a-z0-9-]{1,40}") String, @Valid Provider> providers) {

    /**
     * One provider.
     *
     * @param name           as people read it
     * @param issuer         its address; all else is discovered from it
     * @param client         what Mossbank is called there
     * @param secret         the client's secret
     * @param groups         the claim that says which groups somebody is in
     * @param leads          groups whose members may begin studies; where none is named, administrators say who may
     * @param administrators groups whose members are administrators; where none is named, administrators say who is
     * @param open           whether whoever it knows gets an account; otherwise only who was invited
     */
    record Provider(
            @NotBlank String name,
            @NotBlank @Pattern(regexp = "https?://.+") String issuer,
            @NotBlank String client,
            @NotBlank String secret,
            @DefaultValue("groups") String groups,
            @DefaultValue List<String> leads,
            @DefaultValue List<String> administrators,
            @DefaultValue("true") boolean open) {
        /** Without the secret, so that no log can hold it. */
        @Override
        public String toString() {
            return "Provider[" + issuer + "]";
        }
    }

    /** In the order in which they are named. */
    Map<String, Provider> all() {
        return providers == null ? Map.of() : new LinkedHashMap<>(providers);
    }
}
