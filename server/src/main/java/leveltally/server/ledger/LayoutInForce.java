package leveltally.server.ledger;

import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * By which layout the bank of an account is told of its checks.
 *
 * @param next the one that takes its place from a day on; null for none
 */
public record LayoutInForce(
        long now, @Nullable Long next, @Nullable LocalDate from) {

    /** The layout of files made on this day. */
    public long on(LocalDate day) {
        return next == null || from == null || day.isBefore(from) ? now : next;
    }
}
