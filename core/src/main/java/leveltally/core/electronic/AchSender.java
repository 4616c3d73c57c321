package leveltally.core.electronic;

import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;
import org.jspecify.annotations.Nullable;

/**
 * What a bank agreed on with the company for its ACH files; data of the way to pay.
 *
 * @param destination the routing number of the bank that takes the file, and {@code destinationName} its name
 * @param origin the company as that bank knows it, at most ten letters and digits
 * @param companyName as the payee sees it, at most 16 characters
 * @param companyId the company identification of the batches, at most ten letters and digits
 * @param description what the payments are, at most ten characters, such as {@code INVOICES}
 * @param odfi the routing number under which the entries are sent
 * @param offset the account that is debited with the total of each batch; null where the bank does that by itself
 */
public record AchSender(
        RoutingNumber destination,
        String destinationName,
        String origin,
        String originName,
        String companyName,
        String companyId,
        String description,
        RoutingNumber odfi,
        @Nullable String offset) {
    private static final int LONG_NAME = 23;
    private static final int SHORT_NAME = 16;
    private static final int TEN = 10;

    /** @throws Refusal naming the field that has no place in the records */
    public AchSender {
        fits("destinationName", destinationName, LONG_NAME);
        fits("originName", originName, LONG_NAME);
        fits("companyName", companyName, SHORT_NAME);
        fits("description", description, TEN);
        identifies("origin", origin);
        identifies("companyId", companyId);
        if (offset != null && !offset.matches("\\d{4,17}")) {
            throw Refusal.invalidField(
                    "ach-offset", "offset", "The account that is debited has 4 to 17 digits. Leave it empty for none.");
        }
    }

    /** The same debiting this account with the total of each batch. */
    AchSender debiting(String account) {
        return new AchSender(
                destination, destinationName, origin, originName, companyName, companyId, description, odfi, account);
    }

    private static void fits(String field, String value, int most) {
        if (value.isBlank() || value.length() > most || !PlainText.ACH.isPlain(value)) {
            throw Refusal.invalidField(
                    "ach-sender",
                    field,
                    "Type 1 to " + most + " letters, digits and plain signs; records have no room for others.");
        }
    }

    private static void identifies(String field, String value) {
        if (!value.matches("[0-9A-Za-z]{1,10}")) {
            throw Refusal.invalidField(
                    "ach-sender", field, "Type what the bank gave you: at most ten letters and digits.");
        }
    }
}
