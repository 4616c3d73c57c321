package leveltally.core.vendors;

/** A vendor. */
public record VendorId(long value) {}
