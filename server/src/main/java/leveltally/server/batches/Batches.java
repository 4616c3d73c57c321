package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import jakarta.persistence.PersistenceException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;
import leveltally.core.terms.PartPayment;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.invoices.Invoices;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Ledger;
import leveltally.server.people.People;
import leveltally.server.selection.CandidateRows;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Batches and the edits of their drafts.
 *
 * <p>Every deed locks the batch's row first and compares its version, so that two edits of one batch come one after the
 * other and the later one is told who was first.
 */
@Service
public class Batches {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Due due;
    private final CandidateRows candidates;
    private final Invoices invoices;
    private final Vendors vendors;
    private final BankAccounts accounts;
    private final Ledger ledger;
    private final People people;
    private final AuditTrail audit;

    Batches(
            EntityManager entities,
            JdbcClient jdbc,
            Due due,
            CandidateRows candidates,
            Invoices invoices,
            Vendors vendors,
            BankAccounts accounts,
            Ledger ledger,
            People people,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.due = due;
        this.candidates = candidates;
        this.invoices = invoices;
        this.vendors = vendors;
        this.accounts = accounts;
        this.ledger = ledger;
        this.people = people;
        this.audit = audit;
    }

    /** Makes a draft of what the criteria take now, and reserves its invoices. */
    @Transactional
    public BatchId make(Actor by, NewBatch wanted) {
        by.mayDo(Deed.EDIT_BATCH);
        if (wanted.name().isBlank()) {
            throw Refusal.invalidField("name-missing", "name", "Give the batch a name that others will know it by.");
        }
        ledger.shareOpenPeriod(wanted.ledgerDate());
        DueQuestion q = wanted.question();
        BankAccount account = accounts.get(new BankAccountId(q.account()));
        if (account.method() != PaymentMethod.CHECK) {
            throw Refusal.invalid(
                    "only-checks",
                    account.name() + " pays by " + account.method().words()
                            + ", which cannot be made here yet. Pay these at the bank, or choose an account that pays by check.");
        }
        DueQuestion question = new DueQuestion(
                q.account(), q.checkDate(), wanted.ledgerDate(), q.dueBy(), q.nextRun(), q.vendor(), q.out(), q.add());
        Selection selection = due.select(question);
        int count = selection.taken().size();
        if (count == 0) {
            throw Refusal.invalid(
                    "nothing-taken", "No invoice is taken, so there is no batch to make. Take some first.");
        }
        if (count != wanted.expectedCount()) {
            throw Refusal.conflict(
                    "list-changed",
                    "The list changed meanwhile: " + count + " invoices would be taken now, not "
                            + wanted.expectedCount() + ". Look at it again, then make the batch.");
        }
        BatchEntity batch = new BatchEntity();
        batch.name = wanted.name().strip();
        batch.note = wanted.note().strip();
        batch.bankAccountId = q.account();
        batch.method = account.method();
        batch.checkDate = q.checkDate();
        batch.ledgerDate = wanted.ledgerDate();
        batch.nextRun = q.nextRun();
        batch.state = BatchState.DRAFT;
        batch.preparedBy = by.person().value();
        batch.preparedAt = by.now();
        touch(batch, by, "made it");
        entities.persist(batch);
        entities.flush();
        addHand(batch, by);
        put(batch, selection.claims());
        audit.record(
                by,
                "make batch",
                "batch " + batch.id,
                Map.of(
                        "name",
                        batch.name,
                        "invoices",
                        count,
                        "toPay",
                        selection.toPay().plain()));
        return new BatchId(batch.id);
    }

    /** Adds open invoices, due or not; the first that cannot be taken refuses them all with its reason. */
    @Transactional
    public void add(Actor by, BatchId id, long version, List<InvoiceId> wanted) {
        BatchEntity batch = edit(by, id, version);
        List<Candidate> found = candidates.named(wanted);
        if (found.size() < new HashSet<>(wanted).size()) {
            throw Refusal.invalid(
                    "not-open",
                    "One of these invoices is not open any more, so it cannot be added. Search for it again.");
        }
        Criteria criteria = criteria(batch);
        Selection selection = Selection.of(criteria, found, Set.of());
        for (Selection.Row row : selection.rows()) {
            if (row.decision() instanceof Decision.LeftOut out) {
                String detail = out.detail().isEmpty() ? "" : " (" + out.detail() + ")";
                throw Refusal.invalid(
                        "cannot-take",
                        row.candidate().vendorName() + " "
                                + row.candidate().invoice().reference() + " cannot be added: "
                                + out.reason().words() + detail + ".");
            }
        }
        put(batch, selection.claims());
        changed(by, batch, "added " + references(found));
    }

    /** Takes an invoice out; a claim left empty disappears. */
    @Transactional
    public void takeOut(Actor by, BatchId id, long version, InvoiceId invoice) {
        BatchEntity batch = edit(by, id, version);
        ClaimLineEntity line = line(batch, invoice);
        ClaimEntity claim = entities.find(ClaimEntity.class, line.claimId);
        entities.remove(line);
        entities.remove(entities.find(ReservationEntity.class, invoice.value()));
        entities.flush();
        if (linesOf(List.of(claim.id)).isEmpty()) {
            entities.remove(claim);
        } else {
            sumUp(claim);
        }
        changed(by, batch, "took out " + line.reference);
    }

    /** Pays part of an invoice, or all of it when {@code cash} is null. */
    @Transactional
    public void pay(Actor by, BatchId id, long version, InvoiceId invoice, @Nullable String cash) {
        BatchEntity batch = edit(by, id, version);
        ClaimLineEntity line = line(batch, invoice);
        OpenInvoice open = invoices.open(List.of(invoice)).get(invoice);
        if (open == null) {
            throw Invoices.unknown(invoice.value());
        }
        Money wanted = null;
        if (cash != null) {
            try {
                wanted = Money.parse(cash, open.open().currency());
            } catch (IllegalArgumentException unreadable) {
                throw Refusal.invalidField("amount-unreadable", "cash", unreadable.getMessage() + ".");
            }
        }
        PartPayment payment =
                open.pay(wanted, batch.checkDate, accounts.company().graceDays());
        apply(line, payment);
        line.part = payment.settled().compareTo(open.open()) < 0;
        sumUp(entities.find(ClaimEntity.class, line.claimId));
        changed(by, batch, "pays " + payment.cash() + " on " + line.reference);
    }

    /** Closes a batch before anything left it; it is kept, its invoices are free again. */
    @Transactional
    public void withdraw(Actor by, BatchId id, long version) {
        by.mayDo(Deed.EDIT_BATCH);
        BatchEntity batch = lock(id, version);
        batch.state = batch.state.to(BatchState.WITHDRAWN);
        jdbc.sql("DELETE FROM reservation WHERE batch_id = :batch")
                .param("batch", batch.id)
                .update();
        touch(batch, by, "withdrew it");
        audit.record(by, "withdraw batch", "batch " + batch.id, Map.of());
    }

    /** A batch with its row locked until the transaction ends, after its version was compared. */
    @Transactional
    public Batch lockFor(BatchId id, long version) {
        return view(lock(id, version));
    }

    /** A batch with its row locked, whatever its version: for deeds that are safe to repeat. */
    @Transactional
    public Batch lockAnyVersion(BatchId id) {
        return view(lock(id, null));
    }

    @Transactional(readOnly = true)
    public Batch get(BatchId id) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        if (batch == null) {
            throw unknown();
        }
        return view(batch);
    }

    /** Moves a locked batch on; the gate between the states is {@link BatchState#to}. */
    @Transactional
    public void move(Actor by, BatchId id, BatchState to, String what) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        batch.state = batch.state.to(to);
        if (to == BatchState.IN_APPROVAL) {
            batch.sentAt = by.now();
            batch.sentBackReason = null;
        }
        touch(batch, by, what);
    }

    /** Sends a locked batch back to its draft and starts a new round, so that no earlier approval counts. */
    @Transactional
    public void backToDraft(Actor by, BatchId id, String reason) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        batch.state = batch.state.to(BatchState.DRAFT);
        batch.approvalRound++;
        batch.sentBackReason = reason;
        touch(batch, by, "sent it back");
    }

    /** Freezes payee and address of a locked batch's claims as the vendors have them now. */
    @Transactional
    public void freeze(BatchId id) {
        List<ClaimEntity> claims = claimRows(id);
        Map<Long, RemitTo> remitTos =
                vendors.remitTos(claims.stream().map(c -> c.remitToId).toList());
        for (ClaimEntity claim : claims) {
            RemitTo remitTo = remitTos.get(claim.remitToId);
            claim.payee = remitTo.payee();
            claim.address = String.join("\n", remitTo.lines());
        }
        entities.flush();
    }

    /** Writes the digests of a locked batch's claims, as they are sent. */
    @Transactional
    public void putDigests(BatchId id, Map<ClaimId, String> digests) {
        for (ClaimEntity claim : claimRows(id)) {
            claim.digest = digests.get(new ClaimId(claim.id));
        }
    }

    /** Digest of every claim as it was sent; claims never sent are missing. */
    @Transactional(readOnly = true)
    public Map<ClaimId, String> digests(BatchId id) {
        Map<ClaimId, String> digests = new HashMap<>();
        for (ClaimEntity claim : claimRows(id)) {
            if (claim.digest != null) {
                digests.put(new ClaimId(claim.id), claim.digest);
            }
        }
        return digests;
    }

    /** The claims in the order that decides the numbers; two statements, whatever their number. */
    @Transactional(readOnly = true)
    public List<Claim> claims(BatchId id) {
        List<ClaimEntity> claims = claimRows(id);
        Map<Long, List<ClaimLine>> lines = new HashMap<>();
        linesOf(claims.stream().map(c -> c.id).toList())
                .forEach(line -> lines.computeIfAbsent(line.claimId, none -> new ArrayList<>())
                        .add(view(line)));
        List<Claim> views = new ArrayList<>();
        for (ClaimEntity c : claims) {
            views.add(new Claim(
                    new ClaimId(c.id),
                    new VendorId(c.vendorId),
                    new RemitTo(c.payee, List.of(c.address.split("\n"))),
                    Money.ofMinor(c.amountMinor, c.currency),
                    lines.getOrDefault(c.id, List.of())));
        }
        return views;
    }

    /** Invoice dates of the lines of claims, by invoice: what a stub shows beside the reference. */
    @Transactional(readOnly = true)
    public Map<Long, java.time.LocalDate> invoiceDates(Collection<Long> claims) {
        Map<Long, java.time.LocalDate> dates = new LinkedHashMap<>();
        linesOf(claims).forEach(line -> dates.put(line.invoiceId, line.invoiceDate));
        return dates;
    }

    /** Everyone who prepared or changed it (law L7). */
    @Transactional(readOnly = true)
    public Set<PersonId> hands(BatchId id) {
        return new HashSet<>(jdbc.sql("SELECT person_id FROM batch_hand WHERE batch_id = :batch")
                .param("batch", id.value())
                .query((r, n) -> new PersonId(r.getLong(1)))
                .list());
    }

    /** Why these claims may not go on now: holds of their vendors and invoices, each named. */
    @Transactional(readOnly = true)
    public List<String> holds(Collection<ClaimId> claims) {
        return jdbc.sql("""
                        SELECT DISTINCT CONCAT(c.payee, CASE WHEN v.hold_reason IS NOT NULL THEN ': the vendor is held, '
                          ELSE CONCAT(': invoice ', l.reference, ' is held, ') END, COALESCE(v.hold_reason, i.hold_reason))
                        FROM claim c JOIN vendor v ON v.id = c.vendor_id
                        JOIN claim_line l ON l.claim_id = c.id JOIN invoice i ON i.id = l.invoice_id
                        WHERE c.id IN (:claims) AND (v.hold_reason IS NOT NULL OR i.hold_reason IS NOT NULL)
                        """)
                .param("claims", claims.stream().map(ClaimId::value).toList())
                .query(String.class)
                .list();
    }

    /** Frees the invoices of posted claims. */
    @Transactional
    public void release(Collection<ClaimId> claims) {
        entities.flush();
        jdbc.sql("DELETE FROM reservation WHERE claim_id IN (:claims)")
                .param("claims", claims.stream().map(ClaimId::value).toList())
                .update();
    }

    private void put(BatchEntity batch, List<Selection.ClaimDraft> drafts) {
        Map<Long, RemitTo> remitTos = vendors.remitTos(
                drafts.stream().map(Selection.ClaimDraft::remitTo).toList());
        Map<Long, ClaimEntity> byRemitTo = new HashMap<>();
        claimRows(new BatchId(batch.id)).forEach(claim -> byRemitTo.put(claim.remitToId, claim));
        for (Selection.ClaimDraft draft : drafts) {
            ClaimEntity claim = byRemitTo.get(draft.remitTo());
            if (claim == null) {
                claim = newClaim(batch, draft, remitTos.get(draft.remitTo()));
            }
            claim.amountMinor = Math.addExact(claim.amountMinor, draft.amount().minor());
            if (claim.id == null) {
                entities.persist(claim);
            }
            for (Selection.Row row : draft.rows()) {
                addLine(batch, claim, row);
            }
        }
        try {
            entities.flush();
        } catch (PersistenceException takenByOther) {
            throw Refusal.conflict(
                    "taken-meanwhile",
                    "Somebody else took one of these invoices into another batch at the same moment. "
                            + "Nothing of yours was saved; look at the list again.");
        }
    }

    private static ClaimEntity newClaim(BatchEntity batch, Selection.ClaimDraft draft, RemitTo remitTo) {
        ClaimEntity claim = new ClaimEntity();
        claim.batchId = batch.id;
        claim.vendorId = draft.vendor().value();
        claim.remitToId = draft.remitTo();
        claim.payee = remitTo.payee();
        claim.address = String.join("\n", remitTo.lines());
        claim.currency = draft.amount().currency().getCurrencyCode();
        return claim;
    }

    private void addLine(BatchEntity batch, ClaimEntity claim, Selection.Row row) {
        OpenInvoice invoice = row.candidate().invoice();
        ClaimLineEntity line = new ClaimLineEntity();
        line.claimId = claim.id;
        line.kind = ClaimLine.Kind.INVOICE;
        line.invoiceId = invoice.id().value();
        line.reference = invoice.reference();
        line.invoiceDate = invoice.invoiceDate();
        line.currency = claim.currency;
        apply(line, ((Decision.Taken) row.decision()).payment());
        entities.persist(line);
        ReservationEntity reservation = new ReservationEntity();
        reservation.invoiceId = invoice.id().value();
        reservation.batchId = batch.id;
        reservation.claimId = claim.id;
        entities.persist(reservation);
    }

    private static void apply(ClaimLineEntity line, PartPayment payment) {
        line.grossMinor = payment.settled().minor();
        line.discountMinor = payment.discount().minor();
        line.cashMinor = payment.cash().minor();
    }

    private void sumUp(ClaimEntity claim) {
        entities.flush();
        claim.amountMinor = linesOf(List.of(claim.id)).stream()
                .mapToLong(line -> line.cashMinor)
                .sum();
    }

    private BatchEntity edit(Actor by, BatchId id, long version) {
        by.mayDo(Deed.EDIT_BATCH);
        BatchEntity batch = lock(id, version);
        if (!batch.state.isEditable()) {
            throw Refusal.conflict(
                    "not-editable",
                    "This batch is " + batch.state.words() + ", so its lines stand. What is posted can be voided.");
        }
        return batch;
    }

    private BatchEntity lock(BatchId id, @Nullable Long version) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        if (batch == null) {
            throw unknown();
        }
        entities.refresh(batch, LockModeType.PESSIMISTIC_WRITE);
        if (version != null && batch.version != version) {
            String who = people.names().getOrDefault(batch.changedBy, "Somebody");
            String when = DateTimeFormatter.ofPattern("HH:mm 'UTC'", Locale.ROOT)
                    .withZone(ZoneOffset.UTC)
                    .format(batch.changedAt);
            throw Refusal.conflict(
                    "changed-meanwhile",
                    who + " changed this batch at " + when + ": " + batch.changedWhat
                            + ". Nothing of yours was saved; look at it as it is now and repeat what you still want.");
        }
        return batch;
    }

    /** After every edit: who and what, the hand (L7), and a round void when the batch had been sent. */
    private void changed(Actor by, BatchEntity batch, String what) {
        addHand(batch, by);
        if (batch.state != BatchState.DRAFT) {
            batch.state = batch.state.to(BatchState.DRAFT);
            batch.approvalRound++;
        }
        touch(batch, by, what);
        audit.record(by, "change batch", "batch " + batch.id, Map.of("what", what));
    }

    private void addHand(BatchEntity batch, Actor by) {
        jdbc.sql("INSERT IGNORE INTO batch_hand (batch_id, person_id) VALUES (:batch, :person)")
                .param("batch", batch.id)
                .param("person", by.person().value())
                .update();
    }

    private static void touch(BatchEntity batch, Actor by, String what) {
        batch.changedBy = by.person().value();
        batch.changedAt = by.now();
        batch.changedWhat = what.substring(0, Math.min(200, what.length()));
    }

    private static String references(List<Candidate> found) {
        List<String> references =
                found.stream().map(c -> c.invoice().reference()).toList();
        return references.size() > 3 ? references.size() + " invoices" : String.join(", ", references);
    }

    private Criteria criteria(BatchEntity batch) {
        BankAccount account = accounts.get(new BankAccountId(batch.bankAccountId));
        return new Criteria(
                account.currency(),
                batch.method,
                batch.checkDate,
                batch.ledgerDate,
                batch.checkDate,
                batch.nextRun,
                null,
                accounts.company().graceDays());
    }

    private ClaimLineEntity line(BatchEntity batch, InvoiceId invoice) {
        return entities.createQuery(
                        "select l from ClaimLineEntity l join ClaimEntity c on c.id = l.claimId"
                                + " where c.batchId = :batch and l.invoiceId = :invoice",
                        ClaimLineEntity.class)
                .setParameter("batch", batch.id)
                .setParameter("invoice", invoice.value())
                .getResultStream()
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(
                        "not-in-batch", "This invoice is not in the batch any more. Look at the batch again."));
    }

    private List<ClaimEntity> claimRows(BatchId id) {
        return entities.createQuery(
                        "select c from ClaimEntity c where c.batchId = :batch order by c.payee, c.vendorId, c.id",
                        ClaimEntity.class)
                .setParameter("batch", id.value())
                .getResultList();
    }

    private List<ClaimLineEntity> linesOf(Collection<Long> claims) {
        if (claims.isEmpty()) {
            return List.of();
        }
        return entities.createQuery(
                        "select l from ClaimLineEntity l where l.claimId in :claims order by l.invoiceDate, l.invoiceId",
                        ClaimLineEntity.class)
                .setParameter("claims", claims)
                .getResultList();
    }

    private static ClaimLine view(ClaimLineEntity l) {
        Currency currency = Currency.getInstance(l.currency);
        return new ClaimLine(
                l.kind,
                new InvoiceId(l.invoiceId),
                l.reference,
                Money.ofMinor(l.grossMinor, currency),
                Money.ofMinor(l.discountMinor, currency),
                Money.ofMinor(l.creditMinor, currency),
                Money.ofMinor(l.cashMinor, currency));
    }

    private static Batch view(BatchEntity b) {
        Instant sentAt = b.sentAt;
        return new Batch(
                new BatchId(b.id),
                b.name,
                b.note,
                new BankAccountId(b.bankAccountId),
                b.method,
                b.checkDate,
                b.ledgerDate,
                b.nextRun,
                b.state,
                b.approvalRound,
                new PersonId(b.preparedBy),
                sentAt,
                b.sentBackReason,
                b.version);
    }

    private static Refusal unknown() {
        return Refusal.notFound("no-batch", "There is no such batch. Choose one from the list of batches.");
    }
}
