package leveltally.server.electronic;

import java.time.LocalTime;
import java.util.Optional;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.FileAgreement;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import org.jspecify.annotations.Nullable;

/**
 * A way to pay by files, as the bank agreed on it.
 *
 * @param own the account that is debited, as files name it
 * @param perPayment the largest payment the bank takes; null for any, as {@code perFile} and {@code perDay}
 * @param splits whether what is too much for one file goes into several
 * @param cutOff until when a file counts as of its day, by the company's clock
 * @param ahead so many banking days pass before payees can have the money
 * @param prefix of the references of its payments
 */
record ElectronicWay(
        WayId id,
        BankAccountId account,
        String name,
        FileAgreement agreement,
        BankDetails own,
        @Nullable Money perPayment,
        @Nullable Money perFile,
        @Nullable Money perDay,
        boolean splits,
        LocalTime cutOff,
        int ahead,
        String prefix,
        long nextReference,
        long version) {
    /** So many banking days before money goes to an account first it is announced; empty where the bank does not want that. */
    Optional<Integer> announcedDays() {
        return agreement instanceof AchAgreement ach ? Optional.ofNullable(ach.announcedDays()) : Optional.empty();
    }

    /** What people call a payment with this reference. */
    String called(long reference) {
        return prefix + reference;
    }
}
