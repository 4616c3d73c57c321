package leveltally.server.printing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.CheckForm;
import leveltally.core.printing.CheckLayout;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;
import leveltally.core.terms.Discount;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** A claim as it would be paid, for the slip beside a list. */
@RestController
@RequestMapping("/api/slips")
class SlipController {
    private final Due due;
    private final Batches batches;
    private final BankAccounts accounts;
    private final Vendors vendors;
    private final CheckPages pages;

    SlipController(Due due, Batches batches, BankAccounts accounts, Vendors vendors, CheckPages pages) {
        this.due = due;
        this.batches = batches;
        this.accounts = accounts;
        this.vendors = vendors;
        this.pages = pages;
    }

    /** One mark on the discount clock. */
    @Schema(requiredProperties = {"date", "words", "at"})
    record Mark(LocalDate date, String words, int at) {}

    /**
     * @param face absent when nothing is paid by check
     * @param living how much of the clock, in percent, the discount lives
     */
    @Schema(requiredProperties = {"title", "sentence", "terms", "marks", "living", "address"})
    record SlipView(
            String title,
            List<String> address,
            @Nullable PageView face,
            String terms,
            String sentence,
            List<Mark> marks,
            int living) {}

    @GetMapping("/due")
    SlipView due(Actor by, @ParameterObject @ModelAttribute DueQuestion question, @RequestParam long invoice) {
        by.mayDo(Deed.READ);
        Selection selection = due.select(question);
        Selection.Row row = selection.rows().stream()
                .filter(r -> r.candidate().invoice().id().value() == invoice)
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("not-listed", "This invoice is not on the list any more."));
        var candidate = row.candidate();
        RemitTo remitTo = vendors.remitTos(List.of(candidate.remitTo())).get(candidate.remitTo());
        BankAccount account = accounts.get(new BankAccountId(question.account()));
        String terms = vendors.get(candidate.vendor()).terms().inWords();
        PageView face = null;
        String title;
        if (row.decision() instanceof Decision.Taken) {
            Selection.ClaimDraft draft = selection.claims().stream()
                    .filter(c -> c.vendor().equals(candidate.vendor()) && c.remitTo() == candidate.remitTo())
                    .findFirst()
                    .orElseThrow();
            int count = draft.rows().size();
            title = "As it will be paid · " + (count == 1 ? "1 invoice" : count + " invoices");
            if (account.method() == PaymentMethod.CHECK) {
                face = face(draft, remitTo, account, question.checkDate());
            }
        } else {
            Decision.LeftOut out = (Decision.LeftOut) row.decision();
            title = "Left out · " + out.reason().words() + (out.detail().isEmpty() ? "" : ": " + out.detail());
        }
        List<Mark> marks = marks(candidate.invoice(), question);
        return new SlipView(
                title,
                address(remitTo),
                face,
                terms,
                sentence(candidate.invoice(), question, accounts.company().graceDays()),
                marks,
                living(candidate.invoice()));
    }

    /** A claim of a batch as check face and first stub. */
    @GetMapping("/claims/{batch}/{claim}")
    SlipView claim(Actor by, @PathVariable long batch, @PathVariable long claim) {
        by.mayDo(Deed.READ);
        Batch of = batches.get(new BatchId(batch));
        Claim found = batches.claims(of.id()).stream()
                .filter(c -> c.id().equals(new ClaimId(claim)))
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("not-in-batch", "This payment is not in the batch any more."));
        BankAccount account = accounts.get(of.account());
        Map<Long, LocalDate> dates = batches.invoiceDates(List.of(claim));
        PageView face = of.method() == PaymentMethod.CHECK ? draw(found, account, of.checkDate(), dates) : null;
        int count = found.lines().size();
        String title = "As it will be paid · " + (count == 1 ? "1 invoice" : count + " invoices");
        return new SlipView(title, address(found.remitTo()), face, "", "", List.of(), 0);
    }

    private static List<String> address(RemitTo remitTo) {
        List<String> lines = new ArrayList<>();
        lines.add(remitTo.payee());
        lines.addAll(remitTo.lines());
        return lines;
    }

    private PageView face(Selection.ClaimDraft draft, RemitTo remitTo, BankAccount account, LocalDate checkDate) {
        List<ClaimLine> lines = new ArrayList<>();
        Map<Long, LocalDate> dates = new HashMap<>();
        for (Selection.Row row : draft.rows()) {
            OpenInvoice invoice = row.candidate().invoice();
            var payment = ((Decision.Taken) row.decision()).payment();
            var none = leveltally.core.money.Money.zero(draft.amount().currency());
            lines.add(new ClaimLine(
                    ClaimLine.Kind.INVOICE,
                    invoice.id(),
                    invoice.reference(),
                    payment.settled(),
                    payment.discount(),
                    none,
                    payment.cash()));
            dates.put(invoice.id().value(), invoice.invoiceDate());
        }
        Claim claim = new Claim(new ClaimId(0), draft.vendor(), remitTo, draft.amount(), lines);
        return draw(claim, account, checkDate, dates);
    }

    private PageView draw(Claim claim, BankAccount account, LocalDate checkDate, Map<Long, LocalDate> dates) {
        return PageView.of(pages.pages(
                        pages.payer(account), claim, checkDate, null, dates, CheckForm.SLIP, CheckLayout.Use.TO_LOOK_AT)
                .get(0));
    }

    private static String sentence(OpenInvoice invoice, DueQuestion question, int graceDays) {
        Discount discount = invoice.discount();
        String due = "due " + Dates.inWords(invoice.dueDate());
        if (discount.until() == null || discount.left().isZero()) {
            return invoice.reference() + ", " + due + ". No discount can be earned.";
        }
        if (!discount.livesOn(question.checkDate(), graceDays)) {
            return invoice.reference() + ", " + due + ". Its discount of " + discount.left() + " lapsed on "
                    + Dates.inWords(discount.until()) + ".";
        }
        var net = invoice.open().minus(discount.left());
        String earns = invoice.reference() + ", " + due + ". Paying it on " + Dates.inWords(question.checkDate())
                + " earns " + discount.left();
        return Discount.yearlyReturn(discount.left(), net, question.checkDate(), invoice.dueDate())
                .map((BigDecimal percent) -> earns + ", a yearly return of " + percent + "% against paying on "
                        + Dates.inWords(invoice.dueDate()) + ".")
                .orElse(earns + ".");
    }

    /** The marks of the clock from the invoice date to the later of due date and next run, in percent of its length. */
    private static List<Mark> marks(OpenInvoice invoice, DueQuestion question) {
        LocalDate start = invoice.invoiceDate();
        LocalDate end = end(invoice);
        List<Mark> marks = new ArrayList<>();
        marks.add(mark(start, "invoice", start, end));
        LocalDate until = invoice.discount().until();
        if (until != null) {
            marks.add(mark(until, "discount", start, end));
        }
        if (!question.checkDate().isAfter(end) && !question.checkDate().isBefore(start)) {
            marks.add(mark(question.checkDate(), "pay", start, end));
        }
        marks.add(mark(invoice.dueDate(), "due", start, end));
        return marks;
    }

    private static LocalDate end(OpenInvoice invoice) {
        LocalDate until = invoice.discount().until();
        LocalDate due = invoice.dueDate();
        return until != null && until.isAfter(due) ? until : due;
    }

    private static Mark mark(LocalDate date, String words, LocalDate start, LocalDate end) {
        return new Mark(date, words, percent(date, start, end));
    }

    private static int percent(LocalDate date, LocalDate start, LocalDate end) {
        long length = Math.max(1, start.until(end, java.time.temporal.ChronoUnit.DAYS));
        return (int) (100 * start.until(date, java.time.temporal.ChronoUnit.DAYS) / length);
    }

    private static int living(OpenInvoice invoice) {
        LocalDate until = invoice.discount().until();
        return until == null ? 0 : percent(until, invoice.invoiceDate(), end(invoice));
    }
}
