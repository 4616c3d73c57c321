package leveltally.core.bankfiles;

import java.util.List;
import java.util.Map;

/**
 * A bank's file, described: what each record holds, field by field. A description is data, so that a bank's wish is
 * answered by editing it, not by a developer.
 *
 * @param encoding a charset name; {@code lineEnd} what ends each record, the last one too
 * @param header records before, {@code trailer} records after the details; either may be empty
 */
public record Layout(
        String name, String encoding, String lineEnd, List<Field> header, List<Field> detail, List<Field> trailer) {

    public Layout {
        header = List.copyOf(header);
        detail = List.copyOf(detail);
        trailer = List.copyOf(trailer);
        if (detail.isEmpty()) {
            throw new IllegalArgumentException("layout " + name + ": the detail record has no fields");
        }
    }

    /** What fills a field. */
    public enum Source {
        CONSTANT,
        KIND,
        NUMBER,
        AMOUNT,
        DATE,
        PAYEE,
        ACCOUNT_NUMBER,
        ROUTING_NUMBER,
        FILE_DATE,
        FILE_SERIAL,
        /** Of all details, issues and voids. */
        COUNT,
        ISSUE_COUNT,
        ISSUE_TOTAL,
        VOID_COUNT,
        VOID_TOTAL
    }

    /** Which side the value stands on in its width. */
    public enum Align {
        LEFT,
        RIGHT
    }

    /**
     * One field of a fixed-width record.
     *
     * @param value the constant, or the date pattern of a date source; empty otherwise
     * @param width in characters; {@code fill} what pads the rest
     * @param impliedDecimals amounts are written as minor units without a point; otherwise with one
     * @param substitutions whole values to write as others, such as ISSUE → I; a value without one stands as it is
     * @param cut a text too long is cut only where this says so; otherwise it is an error
     */
    public record Field(
            String name,
            Source source,
            String value,
            int width,
            Align align,
            char fill,
            boolean impliedDecimals,
            boolean upperCase,
            Map<String, String> substitutions,
            boolean cut) {
        public Field {
            substitutions = Map.copyOf(substitutions);
            if (width < 1) {
                throw new IllegalArgumentException("layout field " + name + ": the width is at least 1");
            }
        }
    }
}
