package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
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
import leveltally.core.checks.PaymentId;
import leveltally.core.checks.Tray;
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
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Ledger;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Printing in three steps that survive a crash between any two of them: numbers are recorded; the run is handed to the
 * printer once; people answer for each sheet.
 */
@Service
public class Printing {
    private final EntityManager entities;
    private final Batches batches;
    private final Approvals approvals;
    private final Checks checks;
    private final Turns turns;
    private final BankAccounts accounts;
    private final Ledger ledger;
    private final CheckPages pages;
    private final Printer printer;
    private final AuditTrail audit;

    Printing(
            EntityManager entities,
            Batches batches,
            Approvals approvals,
            Checks checks,
            Turns turns,
            BankAccounts accounts,
            Ledger ledger,
            CheckPages pages,
            Printer printer,
            AuditTrail audit) {
        this.entities = entities;
        this.batches = batches;
        this.approvals = approvals;
        this.checks = checks;
        this.turns = turns;
        this.accounts = accounts;
        this.ledger = ledger;
        this.pages = pages;
        this.printer = printer;
        this.audit = audit;
    }

    /** One document's answer. */
    public record Said(long document, Answer answer, String why) {}

    /**
     * Takes numbers for every claim of an approved batch that has none, spoiled ones included, and ends the turn. All pages
     * are laid out first, so that nothing is taken for a check that cannot be drawn.
     *
     * @param inTray the first number on the paper in the tray
     * @param reason needed when it is ahead of the next number
     * @return the run to hand to the printer
     */
    @Transactional
    public long number(Actor by, BatchId id, long turnSerial, long inTray, String reason) {
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
        BankAccount account = accounts.lock(batch.account());
        turns.check(by, account.id(), turnSerial);
        ledger.shareOpenPeriod(batch.ledgerDate());
        List<Claim> claims = batches.claims(id);
        Set<ClaimId> paid = checks.paidClaims(id);
        Map<ClaimId, PaymentId> again = checks.withoutNumber(id);
        List<Claim> wanted = claims.stream()
                .filter(claim -> !paid.contains(claim.id()) || again.containsKey(claim.id()))
                .toList();
        if (wanted.isEmpty()) {
            throw Refusal.conflict("nothing-to-print", "Every payment of this batch has its number already.");
        }
        approvals.refuseObstacles(wanted);
        approvals.verify(batch, wanted);
        Tray tray = Tray.confirm(account.nextNumber(), inTray, reason);
        List<Integer> pageCounts = layOut(batch, account, wanted, tray.first());
        Map<ClaimId, PaymentId> payments = new HashMap<>(again);
        List<Claim> fresh = wanted.stream().filter(c -> !paid.contains(c.id())).toList();
        List<PaymentId> made = checks.pay(batch, fresh);
        for (int i = 0; i < fresh.size(); i++) {
            payments.put(fresh.get(i).id(), made.get(i));
        }
        List<PaymentId> ordered = wanted.stream().map(c -> payments.get(c.id())).toList();
        List<CheckNumberId> numbers = checks.take(by, account.id(), inTray, reason, ordered);
        RunEntity run = run(by, batch, turnSerial);
        for (int i = 0; i < wanted.size(); i++) {
            document(run, i + 1, 1, numbers.get(i), ordered.get(i), wanted.get(i), pageCounts.get(i));
        }
        if (batch.state() == BatchState.APPROVED) {
            batches.move(by, id, BatchState.NUMBERED, "took its numbers");
        }
        turns.recorded(by, account.id(), turnSerial);
        audit.record(
                by,
                "take numbers",
                "batch " + id.value(),
                Map.of("first", tray.first(), "count", wanted.size(), "skipped", tray.skipped(), "reason", reason));
        return run.id;
    }

    private List<Integer> layOut(Batch batch, BankAccount account, List<Claim> claims, long first) {
        CheckText.Payer payer = pages.payer(account);
        Map<ClaimId, Stub> stubs = batches.stubs(claims);
        List<Integer> counts = new ArrayList<>();
        long number = first;
        for (Claim claim : claims) {
            counts.add(pages.pages(
                            payer,
                            claim,
                            batch.checkDate(),
                            number++,
                            stubs.get(claim.id()),
                            CheckForm.LETTER,
                            CheckLayout.Use.FOR_THE_PRINTER)
                    .size());
        }
        return counts;
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

    /** Draws a run with numbers and MICR lines and hands it to the printer; call after {@link #markSent} said true. */
    @Transactional
    public void handOver(long runId) {
        RunEntity run = entities.find(RunEntity.class, runId);
        List<DocumentEntity> documents = documents(runId);
        List<Page> drawn = draw(run, documents, CheckLayout.Use.FOR_THE_PRINTER);
        byte[] pdf = Pdf.of("Checks of batch " + run.batchId, drawn);
        printer.print(
                new leveltally.core.ledger.BankAccountId(run.bankAccountId),
                pdf,
                documents.stream().map(d -> d.id).toList());
    }

    /** A run as a PDF to look at: every page marked, no MICR line. */
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
        BankAccount account = accounts.get(batch.account());
        CheckText.Payer payer = pages.payer(account);
        Map<ClaimId, Claim> claims =
                batches.claims(batch.id()).stream().collect(Collectors.toMap(Claim::id, Function.identity()));
        Map<ClaimId, Stub> stubs = batches.stubs(claims.values());
        Map<CheckNumberId, Check> numbers = checks.of(
                documents.stream().map(d -> new CheckNumberId(d.checkNumberId)).toList());
        List<Page> drawn = new ArrayList<>();
        for (DocumentEntity document : documents) {
            Check check = numbers.get(new CheckNumberId(document.checkNumberId));
            Claim claim = claims.get(check.claim());
            drawn.addAll(pages.pages(
                    payer, claim, batch.checkDate(), check.number(), stubs.get(claim.id()), CheckForm.LETTER, use));
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
        if (check.postedEntry() != null) {
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
        Set<ClaimId> wanted = blank.stream().map(Check::claim).collect(Collectors.toSet());
        List<Claim> claims =
                batches.claims(id).stream().filter(c -> wanted.contains(c.id())).toList();
        approvals.refuseObstacles(claims);
        approvals.verify(batch, claims);
        RunEntity run = run(by, batch, runOf(last.get(blank.get(0).id().value())).turnSerial);
        Map<ClaimId, Claim> byId = claims.stream().collect(Collectors.toMap(Claim::id, Function.identity()));
        int position = 1;
        for (Check check : blank) {
            DocumentEntity before = last.get(check.id().value());
            Claim claim = byId.get(check.claim());
            document(run, position++, before.serial + 1, check.id(), check.payment(), claim, before.pages);
        }
        audit.record(by, "print blank sheets again", "batch " + id.value(), Map.of("count", blank.size()));
        return run.id;
    }

    /** The newest document of each number of a batch. */
    private List<DocumentEntity> latestDocuments(BatchId batch) {
        return entities.createQuery("""
                        select d from DocumentEntity d join RunEntity r on r.id = d.runId where r.batchId = :batch
                        and not exists (select 1 from DocumentEntity e
                          where e.checkNumberId = d.checkNumberId and e.serial > d.serial)
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

    private RunEntity run(Actor by, Batch batch, long turnSerial) {
        RunEntity run = new RunEntity();
        run.batchId = batch.id().value();
        run.bankAccountId = batch.account().value();
        run.turnSerial = turnSerial;
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
        document.serial = serial;
        document.currency = claim.amount().currency().getCurrencyCode();
        document.amountMinor = claim.amount().minor();
        document.pages = pageCount;
        document.answerWhy = "";
        entities.persist(document);
    }
}
