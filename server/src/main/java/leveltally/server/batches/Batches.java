package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
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
import leveltally.core.batches.Stub;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.selection.ClaimOrder;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.people.People;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Batches and their lives; {@link Drafting} edits them.
 *
 * <p>Every deed locks the batch's row first and compares its version, so that two edits of one batch come one after the
 * other and the later one is told who was first.
 */
@Service
public class Batches {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Vendors vendors;
    private final People people;
    private final AuditTrail audit;

    Batches(EntityManager entities, JdbcClient jdbc, Vendors vendors, People people, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.vendors = vendors;
        this.people = people;
        this.audit = audit;
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
        Map<Long, Place> places =
                vendors.places(claims.stream().map(c -> c.remitToId).toList());
        for (ClaimEntity claim : claims) {
            RemitTo remitTo = places.get(claim.remitToId).remitTo();
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

    /** What the stub of each claim lists; two statements, whatever their number. */
    @Transactional(readOnly = true)
    public Map<ClaimId, Stub> stubs(Collection<Claim> claims) {
        List<Long> ids = claims.stream().map(claim -> claim.id().value()).toList();
        Map<InvoiceId, LocalDate> dates = new HashMap<>();
        Set<InvoiceId> hidden = new HashSet<>();
        linesOf(ids).forEach(line -> {
            dates.put(new InvoiceId(line.invoiceId), line.invoiceDate);
            if (line.hidden) {
                hidden.add(new InvoiceId(line.invoiceId));
            }
        });
        Map<Long, String> notes = new HashMap<>();
        if (!ids.isEmpty()) {
            entities.createQuery("select c from ClaimEntity c where c.id in :ids", ClaimEntity.class)
                    .setParameter("ids", ids)
                    .getResultStream()
                    .forEach(claim -> notes.put(claim.id, claim.stubNote));
        }
        Map<ClaimId, Stub> stubs = new HashMap<>();
        for (Claim claim : claims) {
            stubs.put(
                    claim.id(),
                    Stub.of(
                            claim.lines(),
                            dates,
                            hidden,
                            notes.getOrDefault(claim.id().value(), "")));
        }
        return stubs;
    }

    BatchEntity row(BatchId id) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        if (batch == null) {
            throw unknown();
        }
        return batch;
    }

    long amountMinor(long batch) {
        return jdbc.sql("SELECT COALESCE(SUM(amount_minor), 0) FROM claim WHERE batch_id = :batch")
                .param("batch", batch)
                .query(Long.class)
                .single();
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

    BatchEntity lock(BatchId id, @Nullable Long version) {
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
    void changed(Actor by, BatchEntity batch, String what) {
        addHand(batch, by);
        if (batch.state != BatchState.DRAFT) {
            batch.state = batch.state.to(BatchState.DRAFT);
            batch.approvalRound++;
        }
        touch(batch, by, what);
        audit.record(by, "change batch", "batch " + batch.id, Map.of("what", what));
    }

    void addHand(BatchEntity batch, Actor by) {
        jdbc.sql("INSERT IGNORE INTO batch_hand (batch_id, person_id) VALUES (:batch, :person)")
                .param("batch", batch.id)
                .param("person", by.person().value())
                .update();
    }

    static void touch(BatchEntity batch, Actor by, String what) {
        batch.changedBy = by.person().value();
        batch.changedAt = by.now();
        batch.changedWhat = what.substring(0, Math.min(200, what.length()));
    }

    /** The order that decides the numbers; the names are ours, so nothing typed gets into the statement. */
    private String order(BatchId id) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        ClaimOrder order = batch == null ? ClaimOrder.PAYEE : batch.claimOrder;
        String first = switch (order) {
            case PAYEE -> "c.payee";
            case VENDOR_NUMBER -> "c.vendorNumber";
            case AMOUNT -> "c.amountMinor desc";
            case POSTAL_CODE -> "c.postalCode";
        };
        return first + ", c.vendorNumber, c.remitToId, c.id";
    }

    /** The same order for a plain statement over {@code claim c}. */
    String orderInSql(BatchId id) {
        return order(id)
                .replace("vendorNumber", "vendor_number")
                .replace("amountMinor", "amount_minor")
                .replace("postalCode", "postal_code")
                .replace("remitToId", "remit_to_id");
    }

    private List<ClaimEntity> claimRows(BatchId id) {
        return entities.createQuery(
                        "select c from ClaimEntity c where c.batchId = :batch order by " + order(id), ClaimEntity.class)
                .setParameter("batch", id.value())
                .getResultList();
    }

    private List<ClaimLineEntity> linesOf(Collection<Long> claims) {
        if (claims.isEmpty()) {
            return List.of();
        }
        return entities.createQuery(
                        "select l from ClaimLineEntity l where l.claimId in :claims order by l.kind desc, l.invoiceDate, l.invoiceId",
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
