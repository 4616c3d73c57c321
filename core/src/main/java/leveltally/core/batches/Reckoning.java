package leveltally.core.batches;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.invoices.Settling;
import leveltally.core.money.Money;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;
import org.jspecify.annotations.Nullable;

/** From what was decided about a payment to its amounts. */
public final class Reckoning {
    private Reckoning() {}

    /**
     * The cash typed for an invoice as it is kept: null where it is exactly what is left to pay, which means all of it,
     * whatever credits come or go later.
     *
     * @throws Refusal when it is more, or not above zero
     */
    public static @Nullable Money typed(
            DraftClaim claim,
            InvoiceId invoice,
            Money cash,
            Map<InvoiceId, OpenInvoice> invoices,
            Map<InvoiceId, OpenCredit> credits,
            LocalDate checkDate,
            int graceDays) {
        Settling whole = settling(
                claim.each(line -> line.id().equals(invoice) ? line.paying(null) : line),
                invoices,
                credits,
                checkDate,
                graceDays);
        Money net = whole.lines().stream()
                .filter(line -> line.invoice().id().equals(invoice))
                .findFirst()
                .orElseThrow()
                .payment()
                .cash();
        return cash.equals(net) ? null : cash;
    }

    /**
     * The lines of a payment: its invoices in their order, then the credits it needs. A credit line uses up exactly what
     * the invoice lines are credited, and pays nothing.
     *
     * @throws Refusal when an invoice or credit is not open any more, or nothing would be left to pay
     */
    public static List<ClaimLine> of(
            DraftClaim claim,
            Map<InvoiceId, OpenInvoice> invoices,
            Map<InvoiceId, OpenCredit> credits,
            LocalDate checkDate,
            int graceDays) {
        Settling settling = settling(claim, invoices, credits, checkDate, graceDays);
        if (!settling.cash().isPositive()) {
            throw Refusal.invalid(
                    "covered-by-credits",
                    "The credits cover all of this payment, and no check can be written for zero. "
                            + "Use fewer credits, or take the invoices out and settle them by an offset.");
        }
        List<ClaimLine> lines = new ArrayList<>();
        for (Settling.Line line : settling.lines()) {
            lines.add(new ClaimLine.Invoice(
                    line.invoice().id(),
                    line.invoice().reference(),
                    line.settled(),
                    line.payment().discount(),
                    line.credit()));
        }
        settling.uses().forEach(use -> lines.add(credit(use)));
        return List.copyOf(lines);
    }

    private static Settling settling(
            DraftClaim claim,
            Map<InvoiceId, OpenInvoice> invoices,
            Map<InvoiceId, OpenCredit> credits,
            LocalDate checkDate,
            int graceDays) {
        List<Settling.Owed> owed = new ArrayList<>();
        List<OpenCredit> used = new ArrayList<>();
        for (DraftLine line : claim.lines()) {
            if (line.isInvoice()) {
                owed.add(new Settling.Owed(found(invoices, line.id()), line.typed()));
            } else {
                used.add(found(credits, line.id()));
            }
        }
        return Settling.of(owed, used, checkDate, graceDays);
    }

    /** The lines of a claim as it was chosen. */
    public static List<ClaimLine> of(Selection.ClaimDraft chosen) {
        List<ClaimLine> lines = new ArrayList<>();
        for (Selection.Row row : chosen.rows()) {
            OpenInvoice invoice = row.candidate().invoice();
            Decision.Taken taken = (Decision.Taken) row.decision();
            lines.add(new ClaimLine.Invoice(
                    invoice.id(),
                    invoice.reference(),
                    taken.credit().plus(taken.payment().settled()),
                    taken.payment().discount(),
                    taken.credit()));
        }
        chosen.credits().forEach(use -> lines.add(credit(use)));
        return List.copyOf(lines);
    }

    private static ClaimLine credit(Settling.Use use) {
        return new ClaimLine.Credit(use.credit().id(), use.credit().reference(), use.used());
    }

    private static <T> T found(Map<InvoiceId, T> open, InvoiceId id) {
        T one = open.get(id);
        if (one == null) {
            throw Refusal.conflict(
                    "not-open",
                    "Entry " + id.value() + " is not open any more, so it cannot be paid. Take it out of the batch.");
        }
        return one;
    }
}
