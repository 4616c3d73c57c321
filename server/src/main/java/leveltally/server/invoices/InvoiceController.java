package leveltally.server.invoices;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Invoices and credits entered by hand, their holds, and credits applied without a payment. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class InvoiceController {
    private final Entering entering;
    private final InvoiceEntries entries;
    private final Holds holds;
    private final Offsets offsets;
    private final Vendors vendors;

    InvoiceController(Entering entering, InvoiceEntries entries, Holds holds, Offsets offsets, Vendors vendors) {
        this.entering = entering;
        this.entries = entries;
        this.holds = holds;
        this.offsets = offsets;
        this.vendors = vendors;
    }

    /** @param open less than the amount where something was paid ahead under its reference */
    record EnteredView(long entry, MoneyView amount, LocalDate dueDate, MoneyView open) {}

    /**
     * What the terms make of a date, before anything is entered; amounts are summed here, not in the browser. {@code currencies}
     * are those it may be in, the vendor's usual one first.
     */
    record EntryPreview(
            String terms,
            LocalDate dueDate,
            @Nullable LocalDate discountDate,
            String currency,
            List<String> currencies,
            String total) {}

    record HoldReason(@NotNull @Size(max = 200) String reason) {}

    record OffsetWanted(
            long vendor,
            @NotNull @Size(max = 2_000) List<Long> invoices,
            @NotNull @Size(max = 2_000) List<Long> credits) {}

    /** {@code on} null: the business date. */
    record UndoOffset(@Nullable LocalDate on) {}

    record OffsetMade(long id, String reference, MoneyView amount) {}

    /** @param amounts of the lines, one in a line: a comma between them would be taken for one within them */
    @GetMapping("/invoices/preview")
    EntryPreview preview(
            Actor by,
            @RequestParam long vendor,
            @RequestParam LocalDate invoiceDate,
            @RequestParam(required = false) @Nullable String terms,
            @RequestParam(required = false) @Nullable LocalDate dueDate,
            @RequestParam(required = false) @Nullable String currency,
            @RequestParam(defaultValue = "") String amounts) {
        by.mayDo(Deed.READ);
        Vendor of = vendors.get(new VendorId(vendor));
        Currency in = entries.currency(of, currency);
        Terms own = InvoiceEntries.terms(terms);
        Terms taken = own == null ? of.terms() : own;
        Terms.Schedule schedule = taken.scheduleFor(invoiceDate, dueDate);
        List<Money> lines = amounts.lines()
                .filter(text -> !text.isBlank())
                .map(text -> Money.typed(text, in, "lines"))
                .toList();
        return new EntryPreview(
                taken.inWords(),
                schedule.dueDate(),
                schedule.discountDate().orElse(null),
                in.getCurrencyCode(),
                entries.currencies(of).stream().map(Currency::getCurrencyCode).toList(),
                Money.sum(lines, in).toString());
    }

    @PostMapping("/invoices")
    @Needs(Deed.ENTER_INVOICE)
    EnteredView enter(Actor by, @Valid @RequestBody InvoiceEntries.InvoiceEntry wanted) {
        by.mayDo(Deed.ENTER_INVOICE);
        Vendor of = vendors.get(new VendorId(wanted.vendor()));
        NewInvoice invoice = entries.of(wanted);
        Terms ownTerms = InvoiceEntries.terms(wanted.terms());
        InvoiceId id = entering.enter(by, invoice);
        return new EnteredView(
                id.value(),
                MoneyView.of(invoice.amount()),
                (ownTerms == null ? of.terms() : ownTerms)
                        .scheduleFor(wanted.invoiceDate(), wanted.dueDate())
                        .dueDate(),
                MoneyView.of(entries.open(id)));
    }

    @PostMapping("/invoices/{id}/hold")
    @Needs(Deed.HOLD)
    void hold(Actor by, @PathVariable long id, @Valid @RequestBody HoldReason wanted) {
        holds.hold(by, new InvoiceId(id), wanted.reason());
    }

    @PostMapping("/invoices/{id}/release")
    @Needs(Deed.HOLD)
    void release(Actor by, @PathVariable long id, @Valid @RequestBody HoldReason wanted) {
        holds.release(by, new InvoiceId(id), wanted.reason());
    }

    /** Lays credits against invoices, as far as the smaller side goes. */
    @PostMapping("/offsets")
    @Needs(Deed.APPLY_CREDIT)
    OffsetMade offset(Actor by, @Valid @RequestBody OffsetWanted wanted) {
        Offsets.Offset made = offsets.make(
                by,
                new VendorId(wanted.vendor()),
                wanted.invoices().stream().map(InvoiceId::new).toList(),
                wanted.credits().stream().map(InvoiceId::new).toList());
        return new OffsetMade(made.id(), made.reference(), MoneyView.of(made.amount()));
    }

    @PostMapping("/offsets/{id}/undo")
    @Needs(Deed.APPLY_CREDIT)
    void undo(Actor by, @PathVariable long id, @RequestBody(required = false) @Nullable UndoOffset wanted) {
        offsets.undo(by, id, wanted == null || wanted.on() == null ? by.today() : wanted.on());
    }
}
