package leveltally.server.printers;

import leveltally.core.printers.PrinterKind;

/**
 * A printer to choose, or to set up.
 *
 * @param way how pages reach it, in words
 */
public record PrinterView(long id, String name, PrinterKind kind, String way, String queue, boolean inUse) {
    public static PrinterView of(CompanyPrinter printer) {
        return new PrinterView(
                printer.id().value(),
                printer.name(),
                printer.kind(),
                printer.kind().words(),
                printer.queue(),
                printer.inUse());
    }
}
