package leveltally.server.printers;

import leveltally.core.printers.PrinterId;
import leveltally.core.printers.PrinterKind;

/**
 * One of the company's printers.
 *
 * @param queue what the printing system calls it; empty for the other kinds
 */
public record CompanyPrinter(PrinterId id, String name, PrinterKind kind, String queue, boolean inUse) {
    /** True where people print from their own browser: pages are opened, not sent. */
    public boolean opensPages() {
        return kind == PrinterKind.OWN;
    }
}
