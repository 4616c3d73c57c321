package leveltally.server.printing;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Reckoning;
import leveltally.core.batches.Stub;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.BankingDays;
import leveltally.core.paper.CheckText;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;
import leveltally.core.terms.Discount;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.BankHolidays;
import leveltally.server.ledger.WayToPay;
import leveltally.server.paper.CheckPages;
import leveltally.server.paper.PageView;
import leveltally.server.selection.DueLists;
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
@Needs(Deed.READ)
class SlipController {
    private final DueLists lists;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final BankAccounts accounts;
    private final BankHolidays holidays;
    private final Vendors vendors;
    private final CheckPages pages;

    SlipController(
            DueLists lists,
            Batches batches,
            ClaimRows claimRows,
            BankAccounts accounts,
            BankHolidays holidays,
            Vendors vendors,
            CheckPages pages) {
        this.lists = lists;
        this.batches = batches;
        this.claimRows = claimRows;
        this.accounts = accounts;
        this.holidays = holidays;
        this.vendors = vendors;
        this.pages = pages;
    }

    /** One mark on the discount clock. */
    record Mark(LocalDate date, String words, int at) {}

    /**
     * @param face absent when nothing is paid by check
     * @param living how much of the clock, in percent, the discount lives
     */
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
        Selection selection = lists.lately(question, by.today());
        LocalDate checkDate = selection.criteria().checkDate();
        Selection.Row row = selection.rows().stream()
                .filter(r -> r.candidate().invoice().id().value() == invoice)
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("not-listed", "This invoice is not on the list any more."));
        var candidate = row.candidate();
        long at = candidate.payee().remitTo();
        RemitTo remitTo = vendors.places(List.of(at)).get(at).remitTo();
        BankAccount account = accounts.get(new BankAccountId(question.account()));
        String terms = vendors.get(candidate.payee().vendor()).terms().inWords();
        PageView face = null;
        String title;
        if (row.decision() instanceof Decision.Taken) {
            Selection.ClaimDraft draft = selection.claims().stream()
                    .filter(c -> c.rows().stream()
                            .anyMatch(r -> r.candidate().invoice().id().value() == invoice))
                    .findFirst()
                    .orElseThrow();
            int count = draft.rows().size();
            title = "As it will be paid · " + (count == 1 ? "1 invoice" : count + " invoices");
            WayToPay way = account.payingWay(question.wayId());
            if (way.method() == PaymentMethod.CHECK) {
                face = face(draft, remitTo, pages.payer(account.id(), way.id()), checkDate);
            }
        } else {
            Decision.LeftOut out = (Decision.LeftOut) row.decision();
            title = "Left out · " + out.reason().words() + (out.detail().isEmpty() ? "" : ": " + out.detail());
        }
        // what credits leave of it is what can earn
        OpenInvoice owed = row.decision() instanceof Decision.Taken taken
                ? candidate.invoice().lessCredit(taken.credit())
                : candidate.invoice();
        List<Mark> marks = marks(owed, checkDate);
        return new SlipView(
                title,
                address(remitTo),
                face,
                terms,
                sentence(owed, selection.criteria(), holidays.of(account.id())),
                marks,
                living(owed));
    }

    /** A claim of a batch as check face and first stub. */
    @GetMapping("/claims/{batch}/{claim}")
    SlipView claim(Actor by, @PathVariable long batch, @PathVariable long claim) {
        by.mayDo(Deed.READ);
        Batch of = batches.get(new BatchId(batch));
        Claim found = claimRows.of(of.id()).stream()
                .filter(c -> c.id().equals(new ClaimId(claim)))
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("not-in-batch", "This payment is not in the batch any more."));
        if (of.purpose().isAfterTheFact()) {
            return new SlipView(
                    "Paid elsewhere, nothing is printed",
                    List.of(found.remitTo().payee()),
                    null,
                    "",
                    "",
                    List.of(),
                    0);
        }
        Stub stub = claimRows.stubs(List.of(found)).get(found.id());
        PageView face = of.method() == PaymentMethod.CHECK
                ? draw(found, pages.payer(of.account(), of.way()), of.checkDate(), stub)
                : null;
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

    private PageView face(Selection.ClaimDraft draft, RemitTo remitTo, CheckText.Payer payer, LocalDate checkDate) {
        Map<InvoiceId, LocalDate> dates = new HashMap<>();
        draft.rows()
                .forEach(row -> dates.put(
                        row.candidate().invoice().id(),
                        row.candidate().invoice().invoiceDate()));
        draft.credits().forEach(use -> dates.put(use.credit().id(), use.credit().date()));
        List<ClaimLine> lines = Reckoning.of(draft);
        Claim claim = new Claim(new ClaimId(0), draft.payee().vendor(), remitTo, draft.amount(), lines);
        return draw(claim, payer, checkDate, Stub.of(lines, dates, Set.of(), ""));
    }

    private PageView draw(Claim claim, CheckText.Payer payer, LocalDate checkDate, Stub stub) {
        CheckText text = CheckText.of(payer, claim, checkDate, null, stub, null);
        return PageView.of(pages.onSlip(text));
    }

    private static String sentence(OpenInvoice invoice, Criteria criteria, BankingDays days) {
        LocalDate checkDate = criteria.checkDate();
        int graceDays = criteria.graceDays();
        Discount discount = invoice.discount();
        String due = "due " + days.inWords(invoice.dueDate());
        if (discount.until() == null || discount.left().isZero()) {
            return invoice.reference() + ", " + due + ". No discount can be earned.";
        }
        if (!discount.livesOn(checkDate, graceDays)) {
            return invoice.reference() + ", " + due + ". Its discount of " + discount.left() + " lapsed on "
                    + Dates.inWords(discount.until()) + ".";
        }
        var net = invoice.open().minus(discount.left());
        String earns = invoice.reference() + ", " + due + ". Paying it on " + days.inWords(checkDate) + " earns "
                + discount.left();
        LocalDate otherwise = Discount.otherwisePaid(invoice.dueDate(), criteria.nextRun());
        return Discount.yearlyReturn(discount.left(), net, checkDate, otherwise)
                .map((BigDecimal percent) -> earns + ", a yearly return of " + percent + "% against paying on "
                        + Dates.inWords(otherwise) + ".")
                .orElse(earns + ".");
    }

    /** The marks of the clock from the invoice date to the later of due date and next run, in percent of its length. */
    private static List<Mark> marks(OpenInvoice invoice, LocalDate checkDate) {
        LocalDate start = invoice.invoiceDate();
        LocalDate end = end(invoice);
        List<Mark> marks = new ArrayList<>();
        marks.add(mark(start, "invoice", start, end));
        LocalDate until = invoice.discount().until();
        if (until != null) {
            marks.add(mark(until, "discount", start, end));
        }
        if (!checkDate.isAfter(end) && !checkDate.isBefore(start)) {
            marks.add(mark(checkDate, "pay", start, end));
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
