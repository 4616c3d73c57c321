package leveltally.server.invoices;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** A document's own page, and what may still become of it. */
@RestController
@RequestMapping("/api/invoices/{id}")
@Needs(Deed.READ)
class InvoiceDeedController {
    private final InvoicePages pages;
    private final InvoiceChanging changing;
    private final InvoiceEntries entries;
    private final InvoiceNotes notes;
    private final Refunds refunds;

    InvoiceDeedController(
            InvoicePages pages, InvoiceChanging changing, InvoiceEntries entries, InvoiceNotes notes, Refunds refunds) {
        this.pages = pages;
        this.changing = changing;
        this.entries = entries;
        this.notes = notes;
        this.refunds = refunds;
    }

    record CancelInvoice(
            @NotNull LocalDate on, @NotNull @Size(max = 200) String reason) {}

    /** {@code on} is the day on which the wrong one is reversed. */
    record CorrectInvoice(
            @NotNull LocalDate on,
            @NotNull @Size(max = 200) String reason,
            @NotNull @Valid InvoiceEntries.InvoiceEntry anew) {}

    record CorrectedView(long entry) {}

    /** {@code terms} empty: those it has; {@code dueDate} absent: what they make of its date. */
    record PaidOtherwise(
            @NotNull @Size(max = 60) String terms,
            @Nullable LocalDate dueDate,
            long remitTo,
            boolean ownCheck,
            @NotNull @Size(max = 200) String reason) {}

    record NoteText(@NotNull @Size(max = 500) String text) {}

    record RefundReceived(
            long account,
            @NotNull @Size(max = 30) String amount,
            @NotNull LocalDate on,
            @NotNull @Size(max = 200) String reference) {}

    record RefundUndone(
            @NotNull LocalDate on, @NotNull @Size(max = 200) String reason) {}

    @GetMapping
    InvoicePage page(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return pages.of(id);
    }

    @PostMapping("/cancel")
    @Needs(Deed.CHANGE_INVOICE)
    InvoicePage cancel(Actor by, @PathVariable long id, @Valid @RequestBody CancelInvoice wanted) {
        changing.cancel(by, new InvoiceId(id), wanted.on(), wanted.reason());
        return pages.of(id);
    }

    @PostMapping("/correct")
    @Needs(Deed.CHANGE_INVOICE)
    CorrectedView correct(Actor by, @PathVariable long id, @Valid @RequestBody CorrectInvoice wanted) {
        return new CorrectedView(
                changing.correct(by, new InvoiceId(id), wanted.on(), entries.of(wanted.anew()), wanted.reason())
                        .value());
    }

    @PostMapping("/change")
    @Needs(Deed.CHANGE_INVOICE)
    InvoicePage change(Actor by, @PathVariable long id, @Valid @RequestBody PaidOtherwise wanted) {
        changing.change(
                by,
                new InvoiceId(id),
                new InvoiceChanging.Otherwise(
                        wanted.terms(), wanted.dueDate(), wanted.remitTo(), wanted.ownCheck(), wanted.reason()));
        return pages.of(id);
    }

    @PostMapping("/note")
    @Needs(Deed.NOTE_INVOICE)
    InvoicePage note(Actor by, @PathVariable long id, @Valid @RequestBody NoteText wanted) {
        notes.add(by, new InvoiceId(id), wanted.text());
        return pages.of(id);
    }

    @PostMapping("/refund")
    @Needs(Deed.CHANGE_INVOICE)
    InvoicePage refund(Actor by, @PathVariable long id, @Valid @RequestBody RefundReceived wanted) {
        refunds.receive(
                by,
                new InvoiceId(id),
                new Refunds.Received(
                        new BankAccountId(wanted.account()), wanted.amount(), wanted.on(), wanted.reference()));
        return pages.of(id);
    }

    @PostMapping("/refund/{refund}/undo")
    @Needs(Deed.CHANGE_INVOICE)
    InvoicePage undoRefund(
            Actor by, @PathVariable long id, @PathVariable long refund, @Valid @RequestBody RefundUndone wanted) {
        refunds.undo(by, refund, wanted.on(), wanted.reason());
        return pages.of(id);
    }
}
