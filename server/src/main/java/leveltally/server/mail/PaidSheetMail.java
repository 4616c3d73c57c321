package leveltally.server.mail;

import java.time.LocalDate;
import leveltally.core.vendors.VendorId;

/** A mail to a vendor, with the sheet of what it was paid in a period enclosed. */
public record PaidSheetMail(
        VendorId vendor,
        LocalDate from,
        LocalDate to,
        String address,
        String subject,
        String text,
        String html,
        String link) {}
