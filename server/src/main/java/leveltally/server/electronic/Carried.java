package leveltally.server.electronic;

import leveltally.core.bankfiles.FileState;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * A payment by file as whoever hears of it afterwards must know it.
 *
 * @param file the one that carries it; null where none does
 * @param answer what the bank said of that file
 * @param remitTo where it went, and {@code account} by which account, as it was sent
 */
public record Carried(
        PaymentId payment,
        String called,
        PaymentState state,
        Money amount,
        VendorId vendor,
        long remitTo,
        BankDetails account,
        @Nullable Long file,
        @Nullable FileState answer) {}
