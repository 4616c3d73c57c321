package leveltally.server.bankfiles;

import java.time.Instant;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/** A positive pay file, and what the bank said of it; issues and voids are never added. */
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
        @Nullable Long follows) {}
