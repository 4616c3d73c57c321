package leveltally.server.frame;

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
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import tools.jackson.databind.json.JsonMapper;

/** No request but an upload of files to import has more than a megabyte of body, before and after sign-in; it is not read any further. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class BodyLimit extends OncePerRequestFilter {
    static final int MOST = 1 << 20;

    private static final Set<String> UPLOADS = Set.of("/api/imports", "/api/bank-reports", "/api/bank-notices");

    private final JsonMapper json;

    BodyLimit(JsonMapper json) {
        this.json = json;
    }

    /** The body went over the limit while it was read. */
    static final class TooLong extends IOException {
        private static final long serialVersionUID = 1;

        TooLong() {
            super("the body is longer than " + MOST + " bytes");
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        // only there files come in, behind sign-in; a form of files sent anywhere else is a body like any other
        if (UPLOADS.contains(request.getRequestURI())) {
            chain.doFilter(request, response);
        } else if (request.getContentLengthLong() > MOST || isForm(request)) {
            response.setStatus(HttpStatus.CONTENT_TOO_LARGE.value());
            response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
            json.writeValue(response.getOutputStream(), tooLong());
        } else {
            chain.doFilter(new Limited(request), response);
        }
    }

    /** A form of files is read by the container, past any limit of ours; nothing but what takes files in takes one. */
    private static boolean isForm(HttpServletRequest request) {
        String type = request.getContentType();
        return type != null && type.toLowerCase(Locale.ROOT).startsWith("multipart/");
    }

    static org.springframework.http.ProblemDetail tooLong() {
        return Problems.problem(
                HttpStatus.CONTENT_TOO_LARGE,
                "too-long",
                "This is more than one request may hold. Do it in smaller parts, or bring it in as a file.",
                Map.of());
    }

    private static final class Limited extends HttpServletRequestWrapper {
        Limited(HttpServletRequest request) {
            super(request);
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            return new Counted(super.getInputStream());
        }

        @Override
        public BufferedReader getReader() throws IOException {
            return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
        }
    }

    private static final class Counted extends ServletInputStream {
        private final ServletInputStream body;
        private long read;

        Counted(ServletInputStream body) {
            this.body = body;
        }

        private int count(int now) throws IOException {
            if (now > 0) {
                read += now;
                if (read > MOST) {
                    throw new TooLong();
                }
            }
            return now;
        }

        @Override
        public int read() throws IOException {
            int one = body.read();
            count(one < 0 ? 0 : 1);
            return one;
        }

        @Override
        public int read(byte[] into, int from, int most) throws IOException {
            return count(body.read(into, from, most));
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
