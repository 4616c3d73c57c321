package leveltally.core;

import java.util.Map;
import java.util.Objects;

/**
 * A deed that the rules do not allow, in words for the person who asked: what, why, what next.
 *
 * <p>{@code code} is stable and meant for programs; {@code fields} names the inputs at fault, each with its sentence.
 */
public final class Refusal extends RuntimeException {
    private static final long serialVersionUID = 1;

    /** How the refusal came about; the edge turns it into a status. */
    public enum Kind {
        INVALID,
        NOT_ALLOWED,
        NOT_FOUND,
        CONFLICT
    }

    private final Kind kind;
    private final String code;
    private final transient Map<String, String> fields;

    private Refusal(Kind kind, String code, String sentence, Map<String, String> fields) {
        super(sentence);
        this.kind = kind;
        this.code = code;
        this.fields = Map.copyOf(fields);
    }

    public static Refusal invalid(String code, String sentence) {
        return new Refusal(Kind.INVALID, code, sentence, Map.of());
    }

    public static Refusal invalidField(String code, String field, String sentence) {
        return new Refusal(Kind.INVALID, code, sentence, Map.of(field, sentence));
    }

    public static Refusal notAllowed(String code, String sentence) {
        return new Refusal(Kind.NOT_ALLOWED, code, sentence, Map.of());
    }

    public static Refusal notFound(String code, String sentence) {
        return new Refusal(Kind.NOT_FOUND, code, sentence, Map.of());
    }

    public static Refusal conflict(String code, String sentence) {
        return new Refusal(Kind.CONFLICT, code, sentence, Map.of());
    }

    public Kind kind() {
        return kind;
    }

    public String code() {
        return code;
    }

    public String sentence() {
        return Objects.requireNonNull(getMessage());
    }

    public Map<String, String> fields() {
        return fields == null ? Map.of() : fields;
    }
}
