package leveltally.server.reports;

import java.time.Instant;
import java.time.LocalDate;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * A payment in cash to a reported vendor that was undone in a later year than the one it is reported in.
 *
 * @param name what people call it
 * @param year in which it is reported
 * @param falls whether that year falls by it after all
 * @param chosenBy who chose last, with {@code reason}; null where nobody did and the year stays
 */
record EarlierYear(
        long payment,
        String name,
        long vendor,
        String vendorName,
        String as,
        MoneyView amount,
        LocalDate checkDate,
        int year,
        LocalDate undoneOn,
        boolean falls,
        @Nullable String chosenBy,
        @Nullable Instant chosenAt,
        String reason) {}
