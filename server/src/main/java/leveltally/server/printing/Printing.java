package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
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
import leveltally.core.checks.NumberState;
import leveltally.core.checks.Tray;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.CheckForm;
import leveltally.core.printing.CheckLayout;
import leveltally.core.printing.CheckText;
import leveltally.core.printing.Page;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.approval.Approvals;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Obstacles;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.checks.Series;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Ledger;
import leveltally.server.payments.Payments;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Printing in three steps that survive a crash between any two of them: numbers are recorded; the run is handed to the
 * printer once; people answer for each sheet.
 */
@Service
public class Printing {
    /** As wide as any number is printed. */
    private static final long WIDEST_NUMBER = 88_888_888;

    private final EntityManager entities;
    private final Batches batches;
    private final Obstacles obstacles;
    private final ClaimRows claimRows;
    private final Drafting drafting;
    private final Approvals approvals;
    private final Payments payments;
    private final Checks checks;
    private final Series series;
    private final Turns turns;
    private final BankAccounts accounts;
    private final Ledger ledger;
    private final CheckPages pages;
    private final Printer printer;
    private final AuditTrail audit;

    Printing(
            EntityManager entities,
            Batches batches,
            Obstacles obstacles,
            ClaimRows claimRows,
            Drafting drafting,
            Approvals approvals,
            Payments payments,
            Checks checks,
            Series series,
            Turns turns,
            BankAccounts accounts,
            Ledger ledger,
            CheckPages pages,
            Printer printer,
            AuditTrail audit) {
        this.entities = entities;
        this.batches = batches;
        this.obstacles = obstacles;
        this.claimRows = claimRows;
        this.drafting = drafting;
        this.approvals = approvals;
        this.payments = payments;
        this.checks = checks;
        this.series = series;
        this.turns = turns;
        this.accounts = accounts;
        this.ledger = ledger;
        this.pages = pages;
        this.printer = printer;
        this.audit = audit;
    }

    /** A payment that cannot be numbered now, and why, with its way out; the others go on. */
    public record Behind(ClaimId claim, String payee, String why) {}

    /** A run whose numbers are taken, the advices that go with it, and who stays behind. */
    public record Numbered(long run, @Nullable Long advices, List<Behind> behind) {}

    /** One document's answer. */
    public record Said(long document, Answer answer, String why) {}

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
        ledger.shareOpenPeriod(batch.ledgerDate());
        List<Claim> claims = claimRows.of(id);
        Set<ClaimId> paid = payments.claims(id);
        Map<ClaimId, PaymentId> again = checks.withoutNumber(id);
        List<Claim> unnumbered = claims.stream()
                .filter(claim -> !paid.contains(claim.id()) || again.containsKey(claim.id()))
                .toList();
        if (unnumbered.isEmpty()) {
            throw Refusal.conflict("nothing-to-print", "Every payment of this batch has its number already.");
        }
        Tray tray = Tray.confirm(series.lock(batch.way()).nextNumber(), inTray, reason);
        Map<ClaimId, Behind> behind = behind(batch, unnumbered);
        List<Claim> wanted = unnumbered.stream()
                .filter(claim -> !behind.containsKey(claim.id()))
                .toList();
        if (wanted.isEmpty()) {
            throw Refusal.conflict(
                    "all-stay-behind",
                    "None can be numbered as it stands: "
                            + behind.values().stream()
                                    .map(Behind::why)
                                    .distinct()
                                    .collect(Collectors.joining("; ")) + ".");
        }
        approvals.verify(batch, wanted);
        Map<ClaimId, PaymentId> paying = new HashMap<>(again);
        List<Claim> fresh = wanted.stream().filter(c -> !paid.contains(c.id())).toList();
        List<PaymentId> made = payments.prepare(by, batch, fresh);
        for (int i = 0; i < fresh.size(); i++) {
            paying.put(fresh.get(i).id(), made.get(i));
        }
        List<PaymentId> ordered = wanted.stream().map(c -> paying.get(c.id())).toList();
        List<CheckNumberId> numbers = checks.take(by, batch.way(), inTray, reason, ordered);
        RunEntity run = run(by, batch, turnSerial, DocumentKind.CHECK);
        for (int i = 0; i < wanted.size(); i++) {
            document(run, i + 1, 1, numbers.get(i), ordered.get(i), wanted.get(i), 1);
        }
        Long advices = adviceRun(by, batch, turnSerial, wanted, numbers, ordered);
        if (batch.state() == BatchState.APPROVED) {
            batches.move(by, id, BatchState.NUMBERED, "took its numbers");
        }
        turns.recorded(by, batch.account(), turnSerial);
        audit.record(
                by,
                "take numbers",
                "batch " + id.value(),
                Map.of("first", tray.first(), "count", wanted.size(), "skipped", tray.skipped(), "reason", reason));
        return new Numbered(run.id, advices, List.copyOf(behind.values()));
    }

    /** Who among the payments without a number cannot have one now; to be shown. */
    @Transactional(readOnly = true)
    public Map<ClaimId, Behind> behind(BatchId id) {
        Batch batch = batches.get(id);
        Set<ClaimId> paid = payments.claims(id);
        Map<ClaimId, PaymentId> again = checks.withoutNumber(id);
        List<Claim> unnumbered = claimRows.of(id).stream()
                .filter(claim -> !paid.contains(claim.id()) || again.containsKey(claim.id()))
                .toList();
        return behind(batch, unnumbered, obstacles.of(id));
    }

    /** Who cannot be numbered now: held, changed since it was sent, or with a text that cannot be drawn. */
    private Map<ClaimId, Behind> behind(Batch batch, List<Claim> claims) {
        return behind(
                batch, claims, obstacles.shared(claims.stream().map(Claim::id).toList()));
    }

    private Map<ClaimId, Behind> behind(Batch batch, List<Claim> claims, Map<ClaimId, List<String>> obstacles) {
        Map<ClaimId, Behind> behind = new LinkedHashMap<>();
        CheckText.Payer payer = pages.payer(batch.account(), batch.way());
        Map<ClaimId, Stub> stubs = claimRows.stubs(claims);
        for (Claim claim : claims) {
            List<String> own = obstacles.getOrDefault(claim.id(), List.of());
            String why = own.isEmpty()
                    ? undrawable(payer, claim, batch.checkDate(), stubs.get(claim.id()))
                    : claim.remitTo().payee() + ": " + String.join("; ", own)
                            + ". Take it out, have the hold released, or send it again with what is true now";
            if (!why.isEmpty()) {
                behind.put(claim.id(), new Behind(claim.id(), claim.remitTo().payee(), why));
            }
        }
        return behind;
    }

    /** Why a check cannot be drawn, with the widest number there is; empty when it can. */
    private String undrawable(CheckText.Payer payer, Claim claim, LocalDate checkDate, Stub stub) {
        CheckText text = new CheckText(payer, claim, checkDate, WIDEST_NUMBER, stub);
        try {
            pages.check(text, CheckForm.LETTER, CheckLayout.Use.FOR_THE_PRINTER);
            pages.advice(text);
            return "";
        } catch (Refusal refused) {
            return claim.remitTo().payee() + ": " + refused.sentence() + " Until then take it out";
        }
    }

    /** The advices of a run's payments whose stub has no room for every line; null when none needs one. */
    private @Nullable Long adviceRun(
            Actor by,
            Batch batch,
            long turnSerial,
            List<Claim> claims,
            List<CheckNumberId> numbers,
            List<PaymentId> paying) {
        CheckText.Payer payer = pages.payer(batch.account(), batch.way());
        Map<ClaimId, Stub> stubs = claimRows.stubs(claims);
        RunEntity run = null;
        int position = 1;
        for (int i = 0; i < claims.size(); i++) {
            Claim claim = claims.get(i);
            CheckText text = new CheckText(payer, claim, batch.checkDate(), WIDEST_NUMBER, stubs.get(claim.id()));
            int count = pages.advice(text).size();
            if (count > 0) {
                run = run == null ? run(by, batch, turnSerial, DocumentKind.ADVICE) : run;
                document(run, position++, 1, numbers.get(i), paying.get(i), claim, count);
            }
        }
        return run == null ? null : run.id;
    }

    /** Marks a run as handed over; true for whoever does it first. Committed before the printer sees a page. */
    @Transactional
    public boolean markSent(Actor by, long runId) {
        by.mayDo(Deed.PRINT);
        RunEntity run = entities.find(RunEntity.class, runId);
        if (run == null) {
            throw Refusal.notFound("no-run", "There is no such print run.");
        }
        entities.refresh(run, LockModeType.PESSIMISTIC_WRITE);
        if (run.sentAt != null) {
            return false;
        }
        run.sentAt = by.now();
        audit.record(by, "print", "batch " + run.batchId, Map.of("run", runId));
        return true;
    }

    /** Draws a run and hands it to the printer; call after {@link #markSent} said true. */
    @Transactional
    public void handOver(long runId) {
        RunEntity run = entities.find(RunEntity.class, runId);
        List<DocumentEntity> documents = stillWanted(documents(runId));
        if (documents.isEmpty()) {
            return;
        }
        List<Long> ids = documents.stream().map(d -> d.id).toList();
        List<Page> drawn = draw(run, documents, CheckLayout.Use.FOR_THE_PRINTER);
        var account = new BankAccountId(run.bankAccountId);
        if (run.kind == DocumentKind.CHECK) {
            printer.print(account, Pdf.of("Checks of batch " + run.batchId, drawn), ids);
        } else {
            printer.printPlain(account, Pdf.of("Remittance advice of batch " + run.batchId, drawn), ids);
        }
    }

    /** Without those whose payment was taken out between the numbers and the paper. */
    private List<DocumentEntity> stillWanted(List<DocumentEntity> documents) {
        Map<CheckNumberId, Check> numbers = checks.of(
                documents.stream().map(d -> new CheckNumberId(d.checkNumberId)).toList());
        return documents.stream()
                .filter(d ->
                        numbers.get(new CheckNumberId(d.checkNumberId)).state().isLive())
                .toList();
    }

    /** A run as a PDF to look at: every check marked, no MICR line. */
    @Transactional(readOnly = true)
    public byte[] copy(long runId) {
        RunEntity run = entities.find(RunEntity.class, runId);
        if (run == null) {
            throw Refusal.notFound("no-run", "There is no such print run.");
        }
        return Pdf.of("Copy, not checks", draw(run, documents(runId), CheckLayout.Use.TO_LOOK_AT));
    }

    /** The first page of one document as it lies in the tray, marked. */
    @Transactional(readOnly = true)
    public Page trayPage(long documentId) {
        DocumentEntity document = entities.find(DocumentEntity.class, documentId);
        if (document == null) {
            throw Refusal.notFound("no-document", "There is no such sheet in the tray.");
        }
        RunEntity run = entities.find(RunEntity.class, document.runId);
        return draw(run, List.of(document), CheckLayout.Use.TO_LOOK_AT).get(0);
    }

    private List<Page> draw(RunEntity run, List<DocumentEntity> documents, CheckLayout.Use use) {
        Batch batch = batches.get(new BatchId(run.batchId));
        CheckText.Payer payer = pages.payer(batch.account(), batch.way());
        Map<ClaimId, Claim> claims =
                claimRows.ever(batch.id()).stream().collect(Collectors.toMap(Claim::id, Function.identity()));
        Map<ClaimId, Stub> stubs = claimRows.stubs(claims.values());
        Map<CheckNumberId, Check> numbers = checks.of(
                documents.stream().map(d -> new CheckNumberId(d.checkNumberId)).toList());
        List<Page> drawn = new ArrayList<>();
        for (DocumentEntity document : documents) {
            Check check = numbers.get(new CheckNumberId(document.checkNumberId));
            Claim claim = claims.get(check.payment().claim());
            CheckText text = new CheckText(payer, claim, batch.checkDate(), check.number(), stubs.get(claim.id()));
            if (document.kind == DocumentKind.CHECK) {
                drawn.add(pages.check(text, CheckForm.LETTER, use));
            } else {
                drawn.addAll(pages.advice(text));
            }
        }
        return drawn;
    }

    /**
     * Takes people's answers for sheets of one batch, all or none. An answer may be corrected from good to spoiled until the
     * payment is posted; the same answer again changes nothing.
     */
    @Transactional
    public void answer(Actor by, BatchId batch, List<Said> answers) {
        by.mayDo(Deed.PRINT);
        batches.lockAnyVersion(batch);
        for (Said said : answers) {
            DocumentEntity document = entities.find(DocumentEntity.class, said.document());
            if (document == null || runOf(document).batchId != batch.value()) {
                throw Refusal.notFound("no-document", "There is no such sheet in this batch.");
            }
            entities.refresh(document, LockModeType.PESSIMISTIC_WRITE);
            answer(by, document, said);
        }
        audit.record(
                by,
                "answer sheets",
                "batch " + batch.value(),
                Map.of(
                        "answers",
                        answers.stream()
                                .map(a -> a.document() + " " + a.answer())
                                .toList()));
    }

    private void answer(Actor by, DocumentEntity document, Said said) {
        if (document.answer == said.answer()) {
            return;
        }
        if (runOf(document).sentAt == null) {
            throw Refusal.conflict("not-printed", "These sheets were not handed to the printer yet. Print them first.");
        }
        CheckNumberId number = new CheckNumberId(document.checkNumberId);
        Check check = checks.lock(number);
        boolean correction = document.answer == Answer.GOOD && said.answer() == Answer.SPOILED;
        if (document.answer != null && !correction) {
            throw Refusal.conflict(
                    "answered-already",
                    "Sheet " + check.number() + " was answered already: "
                            + document.answer.name().toLowerCase(java.util.Locale.ROOT) + ". Look at it again.");
        }
        if (check.payment().postedEntry() != null) {
            throw Refusal.conflict(
                    "posted-already", "Check " + check.number() + " is posted. Void it instead of calling it spoiled.");
        }
        if (said.answer() == Answer.SPOILED && said.why().isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing", "why", "Say what happened to sheet " + check.number() + ", such as “smeared”.");
        }
        document.answer = said.answer();
        document.answerWhy = said.why().strip();
        document.answeredAt = by.now();
        document.answeredBy = by.person().value();
        switch (said.answer()) {
            case GOOD -> checks.move(by, number, NumberState.PRINTED, by.today(), "");
            case SPOILED ->
                checks.move(
                        by, number, NumberState.SPOILED, by.today(), said.why().strip());
            case BLANK -> {
                // the number stays taken: the sheet prints on its own number
            }
        }
    }

    /**
     * Prints sheets that stayed blank, each on its own number: nothing was on the paper, so this is no reprint.
     *
     * @return the run to hand to the printer
     */
    @Transactional
    public long printBlanks(Actor by, BatchId id) {
        by.mayDo(Deed.PRINT);
        Batch batch = batches.lockAnyVersion(id);
        List<Check> taken = checks.unposted(id, EnumSet.of(NumberState.TAKEN));
        Map<Long, DocumentEntity> last = new HashMap<>();
        latestDocuments(id).forEach(d -> last.put(d.checkNumberId, d));
        List<Check> blank = taken.stream()
                .filter(c -> last.containsKey(c.id().value()) && last.get(c.id().value()).answer == Answer.BLANK)
                .toList();
        if (blank.isEmpty()) {
            throw Refusal.conflict("nothing-blank", "No sheet of this batch was answered still blank.");
        }
        Set<ClaimId> wanted =
                blank.stream().map(check -> check.payment().claim()).collect(Collectors.toSet());
        List<Claim> all =
                claimRows.of(id).stream().filter(c -> wanted.contains(c.id())).toList();
        Map<ClaimId, Behind> behind = behind(batch, all);
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
        approvals.verify(batch, claims);
        RunEntity run = run(by, batch, runOf(last.get(blank.get(0).id().value())).turnSerial, DocumentKind.CHECK);
        Map<ClaimId, Claim> byId = claims.stream().collect(Collectors.toMap(Claim::id, Function.identity()));
        int position = 1;
        for (Check check : blank) {
            if (behind.containsKey(check.payment().claim())) {
                continue;
            }
            DocumentEntity before = last.get(check.id().value());
            Claim claim = byId.get(check.payment().claim());
            document(
                    run,
                    position++,
                    before.serial + 1,
                    check.id(),
                    check.payment().id(),
                    claim,
                    before.pages);
        }
        audit.record(by, "print blank sheets again", "batch " + id.value(), Map.of("count", position - 1));
        return run.id;
    }

    /** Releases numbers whose sheets stayed blank: unaccounted from now on, and their payments get new ones. */
    @Transactional
    public void releaseBlanks(Actor by, BatchId id, Set<Long> wanted, String why) {
        by.mayDo(Deed.PRINT);
        batches.lockAnyVersion(id);
        String reason = reason(why, "Say why these numbers are not printed, such as “sheets lost”.");
        int released = 0;
        for (DocumentEntity document : latestDocuments(id)) {
            if (!wanted.contains(document.id) || document.answer != Answer.BLANK) {
                continue;
            }
            CheckNumberId number = new CheckNumberId(document.checkNumberId);
            if (checks.lock(number).state() == NumberState.TAKEN) {
                checks.move(by, number, NumberState.UNACCOUNTED, by.today(), reason);
                released++;
            }
        }
        if (released == 0) {
            throw Refusal.conflict("nothing-blank", "None of these sheets waits as still blank. Look at them again.");
        }
        audit.record(by, "release blank numbers", "batch " + id.value(), Map.of("count", released, "why", reason));
    }

    /**
     * Takes payments out of a batch until they are posted: their invoices come free, a number that was taken is spoiled, or
     * unaccounted when its sheet stayed blank; then the batch and its month can be closed. It is no change under law L7.
     *
     * @param spoiled what became of the paper of those that have a number: true when it is destroyed, false when it stayed
     *     blank or is lost
     */
    @Transactional
    public void takeOut(Actor by, BatchId id, Set<ClaimId> wanted, boolean spoiled, String why) {
        by.mayDo(Deed.PRINT);
        Batch batch = batches.lockAnyVersion(id);
        if (batch.state() != BatchState.APPROVED && batch.state() != BatchState.NUMBERED) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ". Payments of a draft are taken out in the draft; "
                            + "what is posted is voided.");
        }
        String reason = reason(why, "Say why this payment is taken out.");
        Set<ClaimId> standing = claimRows.of(id).stream().map(Claim::id).collect(Collectors.toSet());
        if (wanted.isEmpty() || !standing.containsAll(wanted)) {
            throw Refusal.notFound("no-claim", "This payment is not in the batch any more. Look at the batch again.");
        }
        Set<ClaimId> paid = payments.claims(id);
        Set<ClaimId> unnumbered =
                wanted.stream().filter(claim -> !paid.contains(claim)).collect(Collectors.toSet());
        List<ClaimId> numbered = wanted.stream().filter(paid::contains).toList();
        for (ClaimId claim : numbered) {
            checks.takeOut(by, claim, spoiled, reason);
            answerTaken(by, id, claim, spoiled, reason);
        }
        claimRows.release(numbered);
        if (!unnumbered.isEmpty()) {
            drafting.takeOutPayments(by, id, unnumbered, "took out payments: " + reason);
        }
        close(by, id);
        audit.record(
                by,
                "take out payments",
                "batch " + id.value(),
                Map.of("claims", wanted.stream().map(ClaimId::value).sorted().toList(), "why", reason));
    }

    /** A sheet of a payment that is out waits for no answer any more. */
    private void answerTaken(Actor by, BatchId batch, ClaimId claim, boolean spoiled, String why) {
        entities.flush();
        for (DocumentEntity document : latestDocuments(batch)) {
            CheckNumberId number = new CheckNumberId(document.checkNumberId);
            if (document.answer == null && checks.get(number).payment().claim().equals(claim)) {
                document.answer = spoiled ? Answer.SPOILED : Answer.BLANK;
                document.answerWhy = why;
                document.answeredAt = by.now();
                document.answeredBy = by.person().value();
            }
        }
    }

    /** A batch with nothing left to number, answer or post is posted, or withdrawn when nothing of it was. */
    private void close(Actor by, BatchId id) {
        Batch batch = batches.get(id);
        if (batch.state() != BatchState.NUMBERED && batch.state() != BatchState.APPROVED) {
            return;
        }
        long standing = claimRows.of(id).size();
        long posted = payments.postedCount(id);
        if (standing == posted) {
            BatchState end = posted > 0 ? BatchState.POSTED : BatchState.WITHDRAWN;
            batches.move(by, id, end, "took out its last payment");
        }
    }

    private static String reason(String typed, String missing) {
        if (typed.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", missing);
        }
        return typed.strip();
    }

    /** The newest document of each number of a batch. */
    private List<DocumentEntity> latestDocuments(BatchId batch) {
        return entities.createQuery("""
                        select d from DocumentEntity d join RunEntity r on r.id = d.runId where r.batchId = :batch
                        and d.kind = CHECK and not exists (select 1 from DocumentEntity e
                          where e.checkNumberId = d.checkNumberId and e.kind = d.kind and e.serial > d.serial)
                        """, DocumentEntity.class)
                .setParameter("batch", batch.value())
                .getResultList();
    }

    private List<DocumentEntity> documents(long runId) {
        return entities.createQuery(
                        "select d from DocumentEntity d where d.runId = :run order by d.position", DocumentEntity.class)
                .setParameter("run", runId)
                .getResultList();
    }

    private RunEntity runOf(DocumentEntity document) {
        return entities.find(RunEntity.class, document.runId);
    }

    private RunEntity run(Actor by, Batch batch, long turnSerial, DocumentKind kind) {
        RunEntity run = new RunEntity();
        run.batchId = batch.id().value();
        run.bankAccountId = batch.account().value();
        run.turnSerial = turnSerial;
        run.kind = kind;
        run.madeAt = by.now();
        run.madeBy = by.person().value();
        entities.persist(run);
        return run;
    }

    private void document(
            RunEntity run,
            int position,
            int serial,
            CheckNumberId number,
            PaymentId payment,
            Claim claim,
            int pageCount) {
        DocumentEntity document = new DocumentEntity();
        document.runId = run.id;
        document.checkNumberId = number.value();
        document.paymentId = payment.value();
        document.position = position;
        document.kind = run.kind;
        document.serial = serial;
        document.currency = claim.amount().currency().getCurrencyCode();
        document.amountMinor = claim.amount().minor();
        document.pages = pageCount;
        document.answerWhy = "";
        entities.persist(document);
    }
}
