package org.mossbank.server.shared;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import org.springframework.core.annotation.AnnotatedElementUtils;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * How large a body may be, before anything of it is taken apart: {@link #USUAL} bytes, unless its address says otherwise
 * with {@link LargeBody}. Files that are uploaded have a limit of their own in the settings.
 */
@Component
@Order(BodyLimit.ORDER)
class BodyLimit extends OncePerRequestFilter implements WebMvcConfigurer {
    /** After what turns failures into problems, before all else. */
    static final int ORDER = OutermostFilter.ORDER + 1;

    /** What anybody may send, also without having signed in. */
    static final long USUAL = 64L << 10;

    /** Signals a body beyond its limit. */
    static final class BodyTooLarge extends IOException {
        private static final long serialVersionUID = 1L;

        BodyTooLarge(long limit) {
            super("the body has more than " + limit + " bytes");
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        chain.doFilter(new Limited(request), response);
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(new HandlerInterceptor() {
            @Override
            public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
                if (handler instanceof HandlerMethod method) {
                    LargeBody larger = find(method);
                    if (larger != null) {
                        request.setAttribute(Limited.LIMIT, larger.value());
                    }
                }
                return true;
            }
        });
    }

    private static @org.jspecify.annotations.Nullable LargeBody find(HandlerMethod method) {
        LargeBody own = method.getMethodAnnotation(LargeBody.class);
        return own != null ? own : AnnotatedElementUtils.findMergedAnnotation(method.getBeanType(), LargeBody.class);
    }

    /** Counts what is read, and stops at the limit that the address has by then. */
    private static final class Limited extends HttpServletRequestWrapper {
        static final String LIMIT = BodyLimit.class.getName() + ".limit";

        Limited(HttpServletRequest request) {
            super(request);
        }

        private long limit() {
            return getAttribute(LIMIT) instanceof Long larger ? larger : USUAL;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            if (getContentLengthLong() > limit()) {
                throw new BodyTooLarge(limit());
            }
            return new LimitedStream(super.getInputStream(), limit());
        }

        @Override
        public BufferedReader getReader() throws IOException {
            return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
        }
    }

    private static final class LimitedStream extends ServletInputStream {
        private final ServletInputStream body;
        private final long limit;
        private long read;

        LimitedStream(ServletInputStream body, long limit) {
            this.body = body;
            this.limit = limit;
        }

        private int counted(int more) throws IOException {
            read += Math.max(0, more);
            if (read > limit) {
                throw new BodyTooLarge(limit);
            }
            return more;
        }

        @Override
        public int read() throws IOException {
            int next = body.read();
            counted(next < 0 ? 0 : 1);
            return next;
        }

        @Override
        public int read(byte[] into, int from, int most) throws IOException {
            return counted(body.read(into, from, most));
        }

        @Override
        public boolean isFinished() {
            return body.isFinished();
        }

        @Override
        public boolean isReady() {
            return body.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            body.setReadListener(listener);
        }
    }
}
