package leveltally.core.paper;

import java.time.LocalDate;
import leveltally.core.DateStyle;
import leveltally.core.batches.Stub;
import org.jspecify.annotations.Nullable;

/**
 * A column of the lines on a stub or an advice.
 *
 * @param share of the width, more than zero, beside those of the other columns
 */
public record Column(Of of, int share) {
    /** What stands in it. */
    public enum Of {
        REFERENCE("Reference", Face.MONO, Box.Align.LEFT),
        DATE("Date", Face.TEXT, Box.Align.LEFT),
        SETTLES("Settles", Face.TEXT, Box.Align.RIGHT),
        DISCOUNT("Discount", Face.TEXT, Box.Align.RIGHT),
        PAID("Paid", Face.TEXT, Box.Align.RIGHT);

        private final String head;
        private final Face face;
        private final Box.Align align;

        Of(String head, Face face, Box.Align align) {
            this.head = head;
            this.face = face;
            this.align = align;
        }

        public String head() {
            return head;
        }

        Face face() {
            return face;
        }

        Box.Align align() {
            return align;
        }

        /** What it says of a row; empty for nothing. */
        String said(Stub.Row row, DateStyle dates) {
            @Nullable LocalDate date = row.date();
            return switch (this) {
                case REFERENCE -> row.reference();
                case DATE -> date == null ? "" : dates.inLines(date);
                case SETTLES -> row.settles().toString();
                case DISCOUNT -> row.discount().isPositive() ? row.discount().toString() : "";
                case PAID -> row.paid().toString();
            };
        }
    }

    public Column {
        if (share <= 0 || share > 1_000) {
            throw new IllegalArgumentException("a column of " + share + " shares; they run from 1 to 1,000");
        }
    }
}
