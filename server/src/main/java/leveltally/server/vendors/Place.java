package leveltally.server.vendors;

import leveltally.core.vendors.RemitTo;

/** A remit-to of a vendor as claims freeze it, with what orders them. */
public record Place(long id, long vendor, String vendorNumber, RemitTo remitTo, String postalCode) {}
