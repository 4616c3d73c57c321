package leveltally.server.marks;

import java.time.LocalDate;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What stands beside a document while it is typed. */
@RestController
@Needs(Deed.READ)
class BesideController {
    private final Beside beside;

    BesideController(Beside beside) {
        this.beside = beside;
    }

    @GetMapping("/api/invoices/beside")
    BesideView beside(
            Actor by,
            @RequestParam long vendor,
            @RequestParam(defaultValue = "INVOICE") InvoiceKind kind,
            @RequestParam(defaultValue = "") String reference,
            @RequestParam LocalDate date,
            @RequestParam(required = false) @Nullable String amount,
            @RequestParam(required = false) @Nullable String currency) {
        by.mayDo(Deed.READ);
        return beside.of(new VendorId(vendor), kind.name(), reference, date, new Beside.Amount(amount, currency));
    }
}
