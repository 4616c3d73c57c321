package leveltally.server.frame;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.SocketTimeoutException;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.Map;
import org.hibernate.TransactionException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import tools.jackson.databind.json.JsonMapper;

/**
 * A database that does not answer, said in words wherever it was asked, before sign-in and after: sessions are read outside
 * of any controller.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class SilentDatabase extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(SilentDatabase.class);
    private static final int STATEMENT_OUT_OF_TIME = 1969;
    private static final int SIGNALED = 1644;
    private static final String CONNECTION_LOST = "08";

    private final JsonMapper json;

    SilentDatabase(JsonMapper json) {
        this.json = json;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        try {
            chain.doFilter(request, response);
        } catch (ServletException | RuntimeException failed) {
            if (!isBehind(failed) || response.isCommitted()) {
                throw failed;
            }
            LOG.warn("the database did not answer {} {}", request.getMethod(), request.getRequestURI(), failed);
            response.reset();
            response.setStatus(HttpStatus.SERVICE_UNAVAILABLE.value());
            response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
            json.writeValue(response.getOutputStream(), problem(request.getMethod()));
        }
    }

    /** Whether a failure means that no answer came, whoever wrapped it: no connection, a lost one, or one out of time. */
    static boolean isBehind(Throwable failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause()) {
            // a rollback that fails hides why: the connection was gone by then
            if (cause instanceof SocketTimeoutException
                    || cause instanceof TransactionException
                    || cause instanceof SQLException sql && isBehind(sql)) {
                return true;
            }
        }
        return false;
    }

    /** What a trigger signals comes from the driver as a connection that is lost for a moment, too. */
    private static boolean isBehind(SQLException failed) {
        String state = failed.getSQLState();
        boolean noneToBeHad = failed instanceof SQLTransientConnectionException && failed.getErrorCode() != SIGNALED;
        return noneToBeHad
                || failed.getErrorCode() == STATEMENT_OUT_OF_TIME
                || state != null && state.startsWith(CONNECTION_LOST);
    }

    /** A question can be asked again; of a deed nobody knows whether the database heard its end. */
    static ProblemDetail problem(String method) {
        String more = method.equals("GET")
                ? "Try again in a moment; if it stays, tell your administrator."
                : "It is not known whether this was done. Look at what is shown once it answers before you do it again.";
        return Problems.problem(
                HttpStatus.SERVICE_UNAVAILABLE,
                "database-silent",
                "The database does not answer at this moment. " + more,
                Map.of());
    }
}
