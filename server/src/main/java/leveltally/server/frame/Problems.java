package leveltally.server.frame;

import jakarta.persistence.OptimisticLockException;
import jakarta.servlet.http.HttpServletRequest;
import java.time.DateTimeException;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Refusal;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.OptimisticLockingFailureException;
import org.springframework.dao.PessimisticLockingFailureException;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** Every refusal as an RFC 9457 problem: a stable code, a sentence for people, the fields at fault. */
@RestControllerAdvice
class Problems {
    private static final Logger LOG = LoggerFactory.getLogger(Problems.class);

    @ExceptionHandler
    ProblemDetail refused(Refusal refusal) {
        HttpStatus status = switch (refusal.kind()) {
            case INVALID -> HttpStatus.UNPROCESSABLE_CONTENT;
            case NOT_ALLOWED -> HttpStatus.FORBIDDEN;
            case NOT_FOUND -> HttpStatus.NOT_FOUND;
            case CONFLICT -> HttpStatus.CONFLICT;
        };
        return problem(status, refusal.code(), refusal.sentence(), refusal.fields());
    }

    @ExceptionHandler
    ProblemDetail invalid(MethodArgumentNotValidException invalid) {
        Map<String, String> fields = new TreeMap<>();
        invalid.getBindingResult()
                .getFieldErrors()
                .forEach(error -> fields.put(error.getField(), String.valueOf(error.getDefaultMessage())));
        String sentence = "Something is missing or too long: " + String.join(", ", fields.keySet()) + ".";
        return problem(HttpStatus.UNPROCESSABLE_CONTENT, "invalid", sentence, fields);
    }

    @ExceptionHandler({
        HttpMessageNotReadableException.class,
        MethodArgumentTypeMismatchException.class,
        MissingServletRequestParameterException.class
    })
    ProblemDetail unreadable(Exception unreadable) {
        for (Throwable cause = unreadable; cause != null; cause = cause.getCause()) {
            if (cause instanceof BodyLimit.TooLong) {
                return BodyLimit.tooLong();
            }
        }
        String field = unreadable instanceof MethodArgumentTypeMismatchException mismatch ? mismatch.getName() : "";
        return problem(
                HttpStatus.BAD_REQUEST,
                "unreadable",
                field.isEmpty()
                        ? "The request could not be read. Check dates and amounts, and try again."
                        : "“" + field + "” could not be read. Check it and try again.",
                field.isEmpty() ? Map.of() : Map.of(field, "cannot be read"));
    }

    @ExceptionHandler({NoResourceFoundException.class, HttpRequestMethodNotSupportedException.class})
    ProblemDetail nothingHere(Exception unknown) {
        return problem(HttpStatus.NOT_FOUND, "unknown", "There is nothing at this address.", Map.of());
    }

    @ExceptionHandler({OptimisticLockingFailureException.class, OptimisticLockException.class})
    ProblemDetail changedMeanwhile(Exception stale) {
        return problem(
                HttpStatus.CONFLICT,
                "changed-meanwhile",
                "Somebody else changed this at the same moment. Nothing of yours was saved; look again and repeat it.",
                Map.of());
    }

    @ExceptionHandler
    ProblemDetail busy(PessimisticLockingFailureException busy) {
        return problem(
                HttpStatus.CONFLICT, "busy", "Somebody else is working on the same thing. Try again now.", Map.of());
    }

    /** A law held by the database itself: the message names it; the services should have refused before. */
    @ExceptionHandler({DataIntegrityViolationException.class, org.springframework.orm.jpa.JpaSystemException.class})
    ProblemDetail lawHeld(Exception violation, HttpServletRequest request) {
        if (SilentDatabase.isBehind(violation)) {
            return broken(violation, request);
        }
        LOG.warn("the database refused {} {}", request.getMethod(), request.getRequestURI(), violation);
        return problem(
                HttpStatus.CONFLICT,
                "law",
                "The database refused this because it would break a rule. Look at what is shown now before you repeat it.",
                Map.of());
    }

    /** Whatever the platform itself finds wrong with a request: its kind, its headers, its parameters. */
    private static ProblemDetail notUnderstood(HttpStatusCode status) {
        String sentence = status.value() == HttpStatus.NOT_ACCEPTABLE.value()
                ? "What is at this address is not to be had in the form that was asked for."
                : "The request could not be understood. Load the page again and repeat it.";
        return problem(HttpStatus.valueOf(status.value()), "not-understood", sentence, Map.of());
    }

    @ExceptionHandler
    ProblemDetail broken(Exception broken, HttpServletRequest request) {
        if (broken instanceof ErrorResponse told && told.getStatusCode().is4xxClientError()) {
            return notUnderstood(told.getStatusCode());
        }
        if (broken instanceof DateTimeException) {
            return unreadable(broken);
        }
        if (SilentDatabase.isBehind(broken)) {
            LOG.warn("the database did not answer {} {}", request.getMethod(), request.getRequestURI(), broken);
            return SilentDatabase.problem(request.getMethod());
        }
        if (Deadlocks.isOne(broken)) {
            return busy(new PessimisticLockingFailureException("deadlock", broken));
        }
        LOG.error("{} {} failed", request.getMethod(), request.getRequestURI(), broken);
        return problem(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "broken",
                "Something went wrong on our side. Look at what is shown now before you repeat it; if it stays, tell your"
                        + " administrator.",
                Map.of());
    }

    static ProblemDetail problem(HttpStatus status, String code, String sentence, Map<String, String> fields) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, sentence);
        problem.setProperty("code", code);
        problem.setProperty("fields", fields);
        return problem;
    }
}
