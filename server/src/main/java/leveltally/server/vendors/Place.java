package leveltally.server.vendors;

import leveltally.core.vendors.RemitTo;
import org.jspecify.annotations.Nullable;

/**
 * A remit-to of a vendor as claims freeze it, with what orders them.
 *
 * @param inForce false while it waits for a second person
 * @param bankSealed the bank details, sealed; null where there are none
 * @param bankMask the end of them, to be shown
 */
public record Place(
        long id,
        long vendor,
        String vendorNumber,
        RemitTo remitTo,
        String postalCode,
        boolean inForce,
        @Nullable String bankSealed,
        String bankMask) {}
