package leveltally.server.bankfiles;

import java.time.Instant;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * A positive pay file, and what the bank said of it; issues and voids are never added.
 *
 * @param anew it tells again what was told, and counts nowhere
 * @param narrowed which of the waiting events it was narrowed to, or what the bank asked for
 */
public record FileView(
        long id,
        long serial,
        String name,
        Instant madeAt,
        String madeBy,
        int issues,
        MoneyView issued,
        int voids,
        MoneyView voided,
        String state,
        String note,
        String hash,
        @Nullable Long follows,
        boolean anew,
        String narrowed,
        List<RefusedView> refused) {

    /** An event the bank refused of a file it took. */
    public record RefusedView(String number, String kind, String why) {}
}
