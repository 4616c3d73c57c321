package leveltally.server.mail;

import java.time.LocalDate;
import leveltally.core.vendors.VendorId;

/** Draws the sheet of what a vendor was paid in a period; anew for each try, as it stands then. */
public interface EnclosingSheet {
    Enclosing.Enclosure of(VendorId vendor, LocalDate from, LocalDate to);
}
