package leveltally.core.bankfiles;

import java.util.List;

/**
 * A record as it was written, with the place of each of its fields.
 *
 * @param kind which record of its layout it is, counted from 0
 * @param row the event it tells of, counted from 1; 0 for header and trailer
 * @param spans one for each field of its record, in their order
 */
public record Laid(String text, int kind, int row, List<Span> spans) {
    public Laid {
        spans = List.copyOf(spans);
    }

    /** From which character to which, the last one not counted. */
    public record Span(int from, int to) {}
}
