package leveltally.server.printers;

import leveltally.core.printers.Handed;
import leveltally.core.printers.PrinterKind;
import org.springframework.stereotype.Component;

/** The printer of whoever sits there: the pages go to the browser in the answer, once, and nobody else has them. */
@Component
class OwnPrinter implements Printer {
    @Override
    public PrinterKind kind() {
        return PrinterKind.OWN;
    }

    @Override
    public Handed print(CompanyPrinter on, PrintJob job) {
        return Handed.accepted("opened in the browser", "");
    }
}
