package leveltally.server.vendors;

import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * One movement of a vendor's account, or one invoice, credit or payment.
 *
 * @param balance what is owed after it; only in the account in time order
 * @param settled nothing of it is open any more
 * @param held it is held by itself
 * @param state open, reserved, settled, held or the state of a payment
 * @param selectable true for an invoice or credit that is open and free
 */
record AccountRow(
        String key,
        LocalDate date,
        long entry,
        String kind,
        String words,
        String reference,
        String amount,
        String currency,
        @Nullable String open,
        @Nullable String balance,
        @Nullable LocalDate dueDate,
        String state,
        boolean settled,
        boolean held,
        boolean selectable) {}
