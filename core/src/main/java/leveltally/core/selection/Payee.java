package leveltally.core.selection;

import java.util.Set;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reach;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * A vendor at one of its remit-to addresses, as far as choosing what to pay must know it. Many candidates share one.
 *
 * @param name the vendor's
 * @param payee whom the paper names at this address
 * @param priority 1 is paid before 2
 * @param holdReason why payments to the vendor are held; null when they are not
 * @param reach what it can be paid by
 * @param alsoBy by what it may be paid beside the way it prefers
 */
public record Payee(
        VendorId vendor,
        String number,
        String name,
        String group,
        int priority,
        PaymentMethod method,
        @Nullable String holdReason,
        long remitTo,
        String payee,
        String postalCode,
        Reach reach,
        Set<PaymentMethod> alsoBy) {
    public Payee {
        alsoBy = Set.copyOf(alsoBy);
    }

    /** One that is paid its own way only. */
    public Payee(
            VendorId vendor,
            String number,
            String name,
            String group,
            int priority,
            PaymentMethod method,
            @Nullable String holdReason,
            long remitTo,
            String payee,
            String postalCode,
            Reach reach) {
        this(vendor, number, name, group, priority, method, holdReason, remitTo, payee, postalCode, reach, Set.of());
    }
}
