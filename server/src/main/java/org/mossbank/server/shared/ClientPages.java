package org.mossbank.server.shared;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.PathResourceResolver;
import org.springframework.web.servlet.resource.ResourceTransformerChain;
import org.springframework.web.servlet.resource.TransformedResource;

/** Serves the client: its own addresses fall back to its one page, missing files and addresses under /api do not. */
@Configuration
class ClientPages implements WebMvcConfigurer {
    private static final String FILES = "classpath:/static/";
    private static final String PAGE = "index.html";
    private static final Duration FOREVER = Duration.ofDays(365);

    private final String base;

    /** @param base letters of an address that need no escape, as its setting wants it */
    ClientPages(@Value("${server.servlet.context-path}") String base) {
        this.base = base;
    }

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/assets/**")
                .addResourceLocations(FILES + "assets/")
                .setCacheControl(CacheControl.maxAge(FOREVER).cachePublic().immutable());
        registry.addResourceHandler("/**")
                .addResourceLocations(FILES)
                .setCacheControl(CacheControl.noCache())
                // Nothing of it is kept: the page is another each time.
                .resourceChain(false)
                .addResolver(new PageResolver())
                .addTransformer(this::filled);
    }

    /** The page has the word by which it knows its own styles. It says where the application stands, and names its files from there: pages lie at many depths. */
    private Resource filled(HttpServletRequest request, Resource file, ResourceTransformerChain chain)
            throws IOException {
        Resource served = chain.transform(request, file);
        if (!PAGE.equals(served.getFilename())) {
            return served;
        }
        String page = served.getContentAsString(StandardCharsets.UTF_8)
                .replace("nonce=\"\"", "nonce=\"" + StyleNonce.make(request) + "\"")
                .replace("name=\"mossbank-base\" content=\"\"", "name=\"mossbank-base\" content=\"" + base + "\"")
                .replace("=\"./", "=\"" + base + "/");
        return new Page(served, page.getBytes(StandardCharsets.UTF_8));
    }

    /** Never "as you have it": what a browser has is another page, with a word of its own. */
    private static final class Page extends TransformedResource {
        Page(Resource original, byte[] content) {
            super(original, content);
        }

        @Override
        public long lastModified() {
            return -1;
        }
    }

    private static final class PageResolver extends PathResourceResolver {
        @Override
        protected @Nullable Resource getResource(String path, Resource location) throws IOException {
            Resource file = super.getResource(path, location);
            if (file != null) {
                return file;
            }
            boolean isPage = !path.startsWith("api/") && !path.startsWith("actuator/") && !path.contains(".");
            return isPage ? location.createRelative(PAGE) : null;
        }
    }
}
