package leveltally.server.paper;

import java.math.BigDecimal;
import leveltally.core.paper.Alignment;
import leveltally.server.printers.CompanyPrinter;

/**
 * A printer's alignment in millimetres.
 *
 * @param takesPages whether the page to align it by can be sent to it
 */
record AlignmentView(long printer, String name, boolean takesPages, BigDecimal right, BigDecimal down) {
    static AlignmentView of(CompanyPrinter printer, Alignment alignment) {
        return new AlignmentView(
                printer.id().value(),
                printer.name(),
                printer.kind() == leveltally.core.printers.PrinterKind.QUEUE,
                BigDecimal.valueOf(alignment.right(), 1),
                BigDecimal.valueOf(alignment.down(), 1));
    }
}
