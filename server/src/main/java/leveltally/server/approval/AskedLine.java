package leveltally.server.approval;

import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/** One line of an asked payment; {@code what} names the accounts it was entered to. */
public record AskedLine(
        long line,
        String kind,
        String reference,
        @Nullable LocalDate invoiceDate,
        @Nullable LocalDate dueDate,
        String gross,
        String discount,
        String credit,
        String cash,
        String what) {}
