package leveltally.server.printing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.Stock;
import leveltally.core.checks.Tray;
import leveltally.core.paper.CheckText;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.approval.Verification;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Deliveries;
import leveltally.server.checks.Checks;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import leveltally.server.paper.CheckPages;
import leveltally.server.paper.Layouts;
import leveltally.server.paper.PaperLayout;
import leveltally.server.payments.Payments;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * The first of three steps that survive a crash between any two of them: numbers are recorded, and what will be printed on
 * them. Then {@link HandingOver} gives the run to the printer once, and people answer for each sheet ({@link Answers}).
 */
@Service
public class Numbering {
    private final Batches batches;
    private final Verification verification;
    private final Payments payments;
    private final Checks checks;
    private final Series series;
    private final Turns turns;
    private final BankAccounts accounts;
    private final Periods periods;
    private final CheckPages pages;
    private final AuditTrail audit;
    private final Runs runs;
    private final Layouts layouts;
    private final Deliveries deliveries;
    private final WaitingClaims waiting;

    Numbering(
            Batches batches,
            Verification verification,
            Payments payments,
            Checks checks,
            Series series,
            Turns turns,
            BankAccounts accounts,
            Periods periods,
            CheckPages pages,
            AuditTrail audit,
            Runs runs,
            Layouts layouts,
            Deliveries deliveries,
            WaitingClaims waiting) {
        this.deliveries = deliveries;
        this.waiting = waiting;
        this.layouts = layouts;
        this.batches = batches;
        this.verification = verification;
        this.payments = payments;
        this.checks = checks;
        this.series = series;
        this.turns = turns;
        this.accounts = accounts;
        this.periods = periods;
        this.pages = pages;
        this.audit = audit;
        this.runs = runs;
    }

    /**
     * Takes numbers for every claim of an approved batch that has none, spoiled ones included, and ends the turn. All pages
     * are laid out first, so that nothing is taken for a check that cannot be drawn; a claim that is held, changed or cannot
     * be drawn stays behind by name, and the others go on.
     *
     * @param inTray the first number on the paper in the tray
     * @param reason needed when it is ahead of the next number
     */
    @Transactional
    public Numbered number(Actor by, BatchId id, long turnSerial, long inTray, String reason) {
        return number(by, id, turnSerial, inTray, reason, Part.WHOLE);
    }

    /**
     * The same for a part of the batch; the others wait for their own.
     *
     * @param part which of its payments, and in which order
     */
    @Transactional
    public Numbered number(Actor by, BatchId id, long turnSerial, long inTray, String reason, Part part) {
        by.mayDo(Deed.PRINT);
        Batch batch = batches.lockAnyVersion(id);
        if (batch.state() != BatchState.APPROVED && batch.state() != BatchState.NUMBERED) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ". Only an approved batch can be printed.");
        }
        if (batch.method() != PaymentMethod.CHECK) {
            throw Refusal.conflict(
                    "not-checks", "This batch pays by " + batch.method().words() + ", not by check.");
        }
        if (batch.purpose().isAfterTheFact()) {
            throw Refusal.conflict(
                    "made-elsewhere",
                    "The payments of this batch were made elsewhere, so nothing is printed. Post them.");
        }
        accounts.lock(batch.account());
        turns.check(by, batch.account(), turnSerial);
        periods.shareOpen(batch.ledgerDate());
        Set<ClaimId> paid = payments.claims(id);
        Map<ClaimId, PaymentId> again = checks.withoutNumber(id);
        List<Claim> unnumbered = waiting.unnumbered(id, paid, again).stream()
                .filter(claim -> part.has(claim.id()))
                .toList();
        if (unnumbered.isEmpty()) {
            throw Refusal.conflict("nothing-to-print", "Every payment that was to be printed has its number already.");
        }
        NumberSeries numberSeries = series.lock(batch.way());
        boolean found = checks.isFoundAgain(numberSeries, inTray);
        Tray tray = found ? new Tray(inTray, 0) : Tray.confirm(numberSeries.nextNumber(), inTray, reason);
        PaperLayout on = layouts.inForce(numberSeries.id(), by.today());
        WaitingClaims.Looked looked = waiting.look(batch, unnumbered, on);
        Map<ClaimId, Behind> behind = looked.behind();
        if (!found) {
            waiting.beyondTheStock(numberSeries, tray.first(), unnumbered, behind);
        }
        List<Claim> wanted = part.ordered(
                unnumbered.stream()
                        .filter(claim -> !behind.containsKey(claim.id()))
                        .toList(),
                deliveries.of(id));
        looked.refuseIfNone("None can be numbered as it stands: ");
        verification.verify(batch, wanted);
        Map<ClaimId, PaymentId> paying = new HashMap<>(again);
        List<Claim> fresh = wanted.stream().filter(c -> !paid.contains(c.id())).toList();
        List<PaymentId> made = payments.prepare(by, batch, fresh);
        for (int i = 0; i < fresh.size(); i++) {
            paying.put(fresh.get(i).id(), made.get(i));
        }
        List<PaymentId> ordered = wanted.stream().map(c -> paying.get(c.id())).toList();
        List<CheckNumberId> numbers = checks.take(by, batch.way(), inTray, reason, ordered);
        Map<Long, Integer> before = found ? runs.serials(numbers) : Map.of();
        if (found && numberSeries.stock() == Stock.BLANK && runs.mayLieAbout(numbers)) {
            throw Refusal.invalidField(
                    "paper-may-lie-about",
                    "firstNumber",
                    "One of these numbers was printed on a sheet whose payment was taken out since, and nobody has that sheet:"
                            + " it would be there twice. Use the next free number, " + numberSeries.nextNumber() + ".");
        }
        List<Runs.Sheet> sheets = new ArrayList<>();
        for (int i = 0; i < wanted.size(); i++) {
            int serial = 1 + before.getOrDefault(numbers.get(i).value(), 0);
            CheckText text = looked.texts().get(wanted.get(i).id()).numbered(tray.first() + i);
            sheets.add(new Runs.Sheet(numbers.get(i), ordered.get(i), serial, text, 1));
        }
        long run = runs.write(by, batch, turnSerial, DocumentKind.CHECK, on, sheets);
        Long advices = adviceRun(by, batch, turnSerial, on, sheets);
        if (batch.state() == BatchState.APPROVED) {
            batches.move(by, id, BatchState.NUMBERED, "took its numbers");
        }
        turns.recorded(by, batch.account(), turnSerial);
        audit.record(
                by,
                "take numbers",
                "batch " + id.value(),
                Map.of("first", tray.first(), "count", wanted.size(), "skipped", tray.skipped(), "reason", reason));
        return new Numbered(run, advices, List.copyOf(behind.values()));
    }

    /** The advices on paper of a run's payments whose stub has no room for every line; null when none needs one. */
    private @Nullable Long adviceRun(Actor by, Batch batch, long turnSerial, PaperLayout on, List<Runs.Sheet> checks) {
        Set<PaymentId> mailed =
                payments.mailedOnly(checks.stream().map(Runs.Sheet::payment).toList());
        List<Runs.Sheet> advices = new ArrayList<>();
        for (Runs.Sheet check : checks) {
            if (mailed.contains(check.payment())) {
                continue;
            }
            int pageCount = pages.advice(check.text(), on.layout()).size();
            if (pageCount > 0) {
                advices.add(new Runs.Sheet(check.number(), check.payment(), check.serial(), check.text(), pageCount));
            }
        }
        return advices.isEmpty() ? null : runs.write(by, batch, turnSerial, DocumentKind.ADVICE, on, advices);
    }
}
