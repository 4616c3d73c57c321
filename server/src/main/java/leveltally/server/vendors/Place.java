package leveltally.server.vendors;

import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.Reach;
import leveltally.core.vendors.RemitTo;
import org.jspecify.annotations.Nullable;

/**
 * A remit-to of a vendor as claims freeze it, with what orders them.
 *
 * @param inForce false while it waits for a second person
 * @param bankSealed the bank details, sealed; null where there are none
 * @param bankMask the end of them, to be shown; {@code bankKind} null where there are none
 * @param oneTime the payee is paid once
 */
public record Place(
        long id,
        long vendor,
        String vendorNumber,
        RemitTo remitTo,
        String postalCode,
        boolean inForce,
        @Nullable String bankSealed,
        String bankMask,
        BankDetails.@Nullable Kind bankKind,
        boolean oneTime) {

    /** How far the payee can be reached there. */
    public Reach reach() {
        return new Reach(!remitTo.lines().isEmpty(), bankKind, inForce);
    }
}
