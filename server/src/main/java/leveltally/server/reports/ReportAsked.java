package leveltally.server.reports;

import java.time.LocalDate;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * What a report is about; each asks for the part it needs.
 *
 * @param on the day as of which it holds; absent: today
 * @param account of a bank
 * @param signed the reconciliation as it was signed; absent: as it is now
 * @param vendor whom it is about
 * @param from the first day of a period; {@code to} its last
 */
public record ReportAsked(
        @Nullable Long batch,
        @Nullable Integer year,
        @Nullable LocalDate on,
        @Nullable Long account,
        @Nullable Long signed,
        @Nullable Long vendor,
        @Nullable LocalDate from,
        @Nullable LocalDate to) {
    public ReportAsked(@Nullable Long batch, @Nullable Integer year, @Nullable LocalDate on) {
        this(batch, year, on, null, null, null, null, null);
    }

    BatchId mustNameBatch() {
        if (batch == null) {
            throw Refusal.invalidField("batch-missing", "batch", "Say of which batch.");
        }
        return new BatchId(batch);
    }

    VendorId mustNameVendor() {
        if (vendor == null) {
            throw Refusal.invalidField("vendor-missing", "vendor", "Say of which vendor.");
        }
        return new VendorId(vendor);
    }

    public LocalDate day(LocalDate today) {
        return on == null ? today : on;
    }

    public int yearOr(int usual) {
        if (year != null && (year < 1990 || year > 2200)) {
            throw Refusal.invalidField("no-year", "year", year + " is no year of this company. Choose another.");
        }
        return year == null ? usual : year;
    }

    /** What tells one file of it from another. */
    String fileName(String name) {
        return name + (batch == null ? "" : "-batch-" + batch) + (year == null ? "" : "-" + year)
                + (on == null ? "" : "-" + on) + (vendor == null ? "" : "-vendor-" + vendor)
                + (from == null ? "" : "-" + from) + ".csv";
    }
}
