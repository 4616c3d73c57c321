package leveltally.server.printing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Stub;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.NumberState;
import leveltally.core.checks.Signing;
import leveltally.core.checks.Stock;
import leveltally.core.checks.Tray;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Paper;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.Answer;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.approval.Verification;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Deliveries;
import leveltally.server.batches.Obstacles;
import leveltally.server.checks.Check;
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
    private final ClaimRows claimRows;
    private final Obstacles obstacles;
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

    Numbering(
            Batches batches,
            ClaimRows claimRows,
            Obstacles obstacles,
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
            Deliveries deliveries) {
        this.deliveries = deliveries;
        this.layouts = layouts;
        this.batches = batches;
        this.claimRows = claimRows;
        this.obstacles = obstacles;
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

    /** As wide as any number is printed. */
    private static final long WIDEST_NUMBER = 88_888_888;

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
        accounts.lock(batch.account());
        turns.check(by, batch.account(), turnSerial);
        periods.shareOpen(batch.ledgerDate());
        Set<ClaimId> paid = payments.claims(id);
        Map<ClaimId, PaymentId> again = checks.withoutNumber(id);
        List<Claim> unnumbered = unnumbered(id, paid, again).stream()
                .filter(claim -> part.has(claim.id()))
                .toList();
        if (unnumbered.isEmpty()) {
            throw Refusal.conflict("nothing-to-print", "Every payment that was to be printed has its number already.");
        }
        NumberSeries numberSeries = series.lock(batch.way());
        boolean found = checks.isFoundAgain(numberSeries, inTray);
        Tray tray = found ? new Tray(inTray, 0) : Tray.confirm(numberSeries.nextNumber(), inTray, reason);
        PaperLayout on = layouts.inForce(numberSeries.id(), by.today());
        Map<ClaimId, Behind> behind = behind(batch, unnumbered, on);
        if (!found) {
            beyondTheStock(batch, tray.first(), unnumbered, behind);
        }
        List<Claim> wanted = part.ordered(
                unnumbered.stream()
                        .filter(claim -> !behind.containsKey(claim.id()))
                        .toList(),
                deliveries.of(id));
        if (wanted.isEmpty()) {
            throw Refusal.conflict(
                    "all-stay-behind",
                    "None can be numbered as it stands: "
                            + behind.values().stream()
                                    .map(Behind::why)
                                    .distinct()
                                    .collect(Collectors.joining("; ")) + ".");
        }
        verification.verify(batch, wanted);
        Map<ClaimId, PaymentId> paying = new HashMap<>(again);
        List<Claim> fresh = wanted.stream().filter(c -> !paid.contains(c.id())).toList();
        List<PaymentId> made = payments.prepare(by, batch, fresh);
        for (int i = 0; i < fresh.size(); i++) {
            paying.put(fresh.get(i).id(), made.get(i));
        }
        List<PaymentId> ordered = wanted.stream().map(c -> paying.get(c.id())).toList();
        List<CheckNumberId> numbers = checks.take(by, batch.way(), inTray, reason, ordered);
        List<CheckText> texts = texts(batch, wanted, tray.first());
        Map<Long, Integer> before = found ? runs.serials(numbers) : Map.of();
        if (found && numberSeries.stock() == Stock.BLANK && runs.mayLieAbout(numbers)) {
            throw Refusal.invalidField(
                    "paper-may-lie-about",
                    "firstNumber",
                    "One of these numbers was printed on a sheet whose payment was taken out since, and nobody has that sheet:"
                            + " it would be there twice. Use the next free number, " + numberSeries.nextNumber() + ".");
        }
        List<Runs.Sheet> sheets = new ArrayList<>();
        for (int i = 0; i < texts.size(); i++) {
            int serial = 1 + before.getOrDefault(numbers.get(i).value(), 0);
            sheets.add(new Runs.Sheet(numbers.get(i), ordered.get(i), serial, texts.get(i), 1));
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

    /** Those for which the series has no number left stay behind, too. */
    private void beyondTheStock(Batch batch, long first, List<Claim> claims, Map<ClaimId, Behind> behind) {
        NumberRange range = series.of(batch.way()).range();
        long next = first;
        for (Claim claim : claims) {
            if (behind.containsKey(claim.id())) {
                continue;
            }
            if (!range.holds(next)) {
                behind.put(
                        claim.id(),
                        new Behind(
                                claim.id(),
                                claim.remitTo().payee(),
                                claim.remitTo().payee() + ": the series ends with " + range.last()
                                        + ". Take it out, and pay it by another series"));
            }
            next++;
        }
    }

    /**
     * The payments of a batch without a number.
     *
     * @param behind who among them cannot have one now
     */
    record Waiting(List<Claim> claims, Map<ClaimId, Behind> behind) {
        /** Those that can have one now. */
        List<Claim> ready() {
            return claims.stream()
                    .filter(claim -> !behind.containsKey(claim.id()))
                    .toList();
        }

        /** What keeps one behind; empty when nothing does. */
        String why(ClaimId claim) {
            Behind kept = behind.get(claim);
            return kept == null ? "" : kept.why();
        }
    }

    @Transactional(readOnly = true)
    Waiting waiting(BatchId id, LocalDate today) {
        List<Claim> claims = unnumbered(id, payments.claims(id), checks.withoutNumber(id));
        Batch batch = batches.get(id);
        return new Waiting(claims, behind(batch, claims, on(batch, today), obstacles.of(id)));
    }

    /** What the checks of a batch would be printed on. */
    private PaperLayout on(Batch batch, LocalDate today) {
        return batch.method() == PaymentMethod.CHECK
                ? layouts.inForce(series.of(batch.way()).id(), today)
                : new PaperLayout(null, StandardLayouts.LETTER);
    }

    private List<Claim> unnumbered(BatchId id, Set<ClaimId> paid, Map<ClaimId, PaymentId> again) {
        return claimRows.of(id).stream()
                .filter(claim -> !paid.contains(claim.id()) || again.containsKey(claim.id()))
                .toList();
    }

    /** Who among the payments without a number cannot have one now; to be shown. */
    @Transactional(readOnly = true)
    public Map<ClaimId, Behind> behind(BatchId id, LocalDate today) {
        return waiting(id, today).behind();
    }

    /** Who cannot be numbered now: held, changed since it was sent, or with a text that cannot be drawn. */
    private Map<ClaimId, Behind> behind(Batch batch, List<Claim> claims, PaperLayout on) {
        return behind(
                batch,
                claims,
                on,
                obstacles.shared(claims.stream().map(Claim::id).toList()));
    }

    private Map<ClaimId, Behind> behind(
            Batch batch, List<Claim> claims, PaperLayout on, Map<ClaimId, List<String>> obstacles) {
        Map<ClaimId, Behind> behind = new LinkedHashMap<>();
        CheckText.Payer payer = pages.payer(batch.account(), batch.way());
        Paper paper = pages.paper(batch.account(), batch.way());
        Signing signing = series.of(batch.way()).signing();
        Map<ClaimId, Stub> stubs = claimRows.stubs(claims);
        for (Claim claim : claims) {
            List<String> own = obstacles.getOrDefault(claim.id(), List.of());
            String why;
            if (!own.isEmpty()) {
                why = claim.remitTo().payee() + ": " + String.join("; ", own)
                        + ". Take it out, have the hold released, or send it again with what is true now";
            } else if (!signing.allows(claim.amount())) {
                why = claim.remitTo().payee() + ": " + claim.amount()
                        + " is more than a check of this series may be, as its controllers limit it. Take it out and pay it"
                        + " another way, or have the limit raised";
            } else {
                why = undrawable(
                        paper,
                        on.layout(),
                        CheckText.of(payer, claim, batch.checkDate(), WIDEST_NUMBER, stubs.get(claim.id())));
            }
            if (!why.isEmpty()) {
                behind.put(claim.id(), new Behind(claim.id(), claim.remitTo().payee(), why));
            }
        }
        return behind;
    }

    /** Why a check cannot be drawn, with the widest number there is; empty when it can. */
    private String undrawable(Paper paper, CheckLayout layout, CheckText text) {
        try {
            pages.forThePrinter(text, layout, paper, null);
            pages.advice(text, layout);
            return "";
        } catch (Refusal refused) {
            return text.payee() + ": " + refused.sentence() + " Until then take it out";
        }
    }

    /** What the checks of these claims say, numbered one after the other. */
    private List<CheckText> texts(Batch batch, List<Claim> claims, long first) {
        CheckText.Payer payer = pages.payer(batch.account(), batch.way());
        Map<ClaimId, Stub> stubs = claimRows.stubs(claims);
        List<CheckText> texts = new ArrayList<>();
        for (Claim claim : claims) {
            texts.add(CheckText.of(payer, claim, batch.checkDate(), first + texts.size(), stubs.get(claim.id())));
        }
        return texts;
    }

    /** The advices of a run's payments whose stub has no room for every line; null when none needs one. */
    private @Nullable Long adviceRun(Actor by, Batch batch, long turnSerial, PaperLayout on, List<Runs.Sheet> checks) {
        List<Runs.Sheet> advices = new ArrayList<>();
        for (Runs.Sheet check : checks) {
            int pageCount = pages.advice(check.text(), on.layout()).size();
            if (pageCount > 0) {
                advices.add(new Runs.Sheet(check.number(), check.payment(), check.serial(), check.text(), pageCount));
            }
        }
        return advices.isEmpty() ? null : runs.write(by, batch, turnSerial, DocumentKind.ADVICE, on, advices);
    }

    /**
     * A new run for sheets that stayed blank, and for damaged ones that may be printed again, each on its own number.
     *
     * @return the run to hand to the printer
     */
    @Transactional
    public long onOwnNumbers(Actor by, BatchId id) {
        by.mayDo(Deed.PRINT);
        Batch batch = batches.lockAnyVersion(id);
        List<Check> taken = checks.unposted(id, EnumSet.of(NumberState.TAKEN));
        Map<Long, DocumentEntity> last = new HashMap<>();
        runs.latest(id).forEach(d -> last.put(d.checkNumberId, d));
        List<Check> blank = taken.stream()
                .filter(c -> last.containsKey(c.id().value()) && keepsNumber(last.get(c.id().value())))
                .toList();
        if (blank.isEmpty()) {
            throw Refusal.conflict("nothing-blank", "No sheet of this batch waits to be printed on its own number.");
        }
        Set<ClaimId> wanted =
                blank.stream().map(check -> check.payment().claim()).collect(Collectors.toSet());
        List<Claim> all =
                claimRows.of(id).stream().filter(c -> wanted.contains(c.id())).toList();
        PaperLayout on = on(batch, by.today());
        Map<ClaimId, Behind> behind = behind(batch, all, on);
        List<Claim> claims =
                all.stream().filter(c -> !behind.containsKey(c.id())).toList();
        if (claims.isEmpty()) {
            throw Refusal.conflict(
                    "all-stay-behind",
                    "None can be printed as it stands: "
                            + behind.values().stream()
                                    .map(Behind::why)
                                    .distinct()
                                    .collect(Collectors.joining("; ")) + ".");
        }
        verification.verify(batch, claims);
        long turn = runs.of(last.get(blank.get(0).id().value())).turnSerial;
        Map<ClaimId, Claim> byId = claims.stream().collect(Collectors.toMap(Claim::id, Function.identity()));
        CheckText.Payer payer = pages.payer(batch.account(), batch.way());
        Map<ClaimId, Stub> stubs = claimRows.stubs(claims);
        List<Runs.Sheet> sheets = new ArrayList<>();
        for (Check check : blank) {
            if (behind.containsKey(check.payment().claim())) {
                continue;
            }
            DocumentEntity before = last.get(check.id().value());
            Claim claim = byId.get(check.payment().claim());
            CheckText text = CheckText.of(payer, claim, batch.checkDate(), check.number(), stubs.get(claim.id()));
            sheets.add(new Runs.Sheet(check.id(), check.payment().id(), before.serial + 1, text, before.pages));
        }
        long run = runs.write(by, batch, turn, DocumentKind.CHECK, on, sheets);
        List<Long> damaged = blank.stream()
                .filter(check -> last.get(check.id().value()).answer == Answer.AGAIN)
                .map(Check::number)
                .toList();
        audit.record(
                by,
                "print on own numbers",
                "batch " + id.value(),
                Map.of("count", sheets.size(), "damaged before", damaged.toString()));
        return run;
    }

    private static boolean keepsNumber(DocumentEntity document) {
        return document.answer != null && document.answer.keepsNumber();
    }
}
