package leveltally.server.invoices;

import leveltally.server.vendors.Vendor;

/** One invoice of many, with what was looked up for all of them. */
public record Arrival(NewInvoice invoice, Vendor vendor, long remitTo) {}
