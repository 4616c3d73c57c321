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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Stub;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
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
import org.springframework.context.ApplicationEventPublisher;
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
    private final ApplicationEventPublisher events;

    Batches(
            EntityManager entities,
            JdbcClient jdbc,
            Vendors vendors,
            People people,
            AuditTrail audit,
            ApplicationEventPublisher events) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.vendors = vendors;
        this.people = people;
        this.audit = audit;
        this.events = events;
    }

    /**
     * Told within the transaction of the deed, before the round is void.
     *
     * @param batch as it was
     * @param what was done to it
     */
    public record ApprovalVoided(Actor by, Batch batch, String what) {}

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

    /**
     * Freezes payee, address and bank details of a locked batch's claims as the vendors have them now.
     *
     * @throws Refusal naming the payees whose address waits for a second person
     */
    @Transactional
    public void freeze(BatchId id) {
        List<ClaimEntity> claims = claimRows(id);
        Map<Long, Place> places =
                vendors.places(claims.stream().map(c -> c.remitToId).toList());
        ClaimOrder order = row(id).claimOrder;
        Map<Long, Long> firstEntries = firstEntries(id);
        Set<String> waiting = new TreeSet<>();
        for (ClaimEntity claim : claims) {
            Place place = places.get(claim.remitToId);
            claim.payee = place.remitTo().payee();
            claim.address = String.join("\n", place.remitTo().lines());
            claim.bankSealed = place.bankSealed();
            claim.bankKey = place.remitTo().bankKey();
            claim.bankMask = place.bankMask();
            claim.orderKey = order.key(claim.placed(firstEntries.get(claim.id)));
            if (!place.inForce()) {
                waiting.add(claim.payee);
            }
        }
        if (!waiting.isEmpty()) {
            throw Refusal.conflict(
                    "address-waits",
                    "The address of " + String.join(" and of ", waiting)
                            + " waits for a second person. Have it confirmed on the vendor's page, or take the payment out.");
        }
        entities.flush();
    }

    /** Writes the digests of a locked batch's claims, as they are sent. */
    @Transactional
    public void putDigests(BatchId id, Map<ClaimId, String> digests) {
        for (ClaimEntity claim : claimRows(id)) {
            claim.digest = digests.get(new ClaimId(claim.id));
        }
        entities.flush();
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

    /** The claims in the order that decides the numbers; two statements, whatever their number. Rows that fit no claim are told, they end no reading. */
    @Transactional(readOnly = true, noRollbackFor = IllegalArgumentException.class)
    public List<Claim> claims(BatchId id) {
        return views(claimRows(id));
    }

    /** The same with those that were taken out after they had a number: what the documents of a batch were drawn of. */
    @Transactional(readOnly = true)
    public List<Claim> claimsEver(BatchId id) {
        return views(claimRows("claim", id));
    }

    private List<Claim> views(List<ClaimEntity> claims) {
        Map<Long, List<ClaimLine>> lines = new HashMap<>();
        linesOf(claims.stream().map(c -> c.id).toList())
                .forEach(line -> lines.computeIfAbsent(line.claimId, none -> new ArrayList<>())
                        .add(view(line)));
        List<Claim> views = new ArrayList<>();
        for (ClaimEntity c : claims) {
            views.add(new Claim(
                    new ClaimId(c.id),
                    new VendorId(c.vendorId),
                    new RemitTo(c.payee, List.of(c.address.split("\n")), c.bankKey),
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
        return jdbc.sql("SELECT COALESCE(SUM(amount_minor), 0) FROM standing_claim WHERE batch_id = :batch")
                .param("batch", batch)
                .query(Long.class)
                .single();
    }

    /** Everyone who prepared or changed it, or entered, brought in or released an invoice of it (law L7). */
    @Transactional(readOnly = true)
    public Set<PersonId> hands(BatchId id) {
        return new HashSet<>(jdbc.sql("SELECT person_id FROM hand WHERE batch_id = :batch")
                .param("batch", id.value())
                .query((r, n) -> new PersonId(r.getLong(1)))
                .list());
    }

    /**
     * Why these claims may not go on now: holds of their vendors and invoices, and vendors whose data is not what was
     * frozen, each named. The rows are shared until the transaction ends, so that no hold and no change slips in between.
     */
    @Transactional
    public Map<ClaimId, List<String>> obstacles(Collection<ClaimId> claims) {
        entities.flush();
        return claims.isEmpty()
                ? Map.of()
                : obstacles(
                        "c.id IN (:claims)", claims.stream().map(ClaimId::value).toList(), "LOCK IN SHARE MODE");
    }

    /** The same of every claim of a batch, to be shown; claims that may go on are missing. */
    @Transactional(readOnly = true)
    public Map<ClaimId, List<String>> obstaclesOf(BatchId id) {
        return obstacles("c.batch_id = :claims", id.value(), "");
    }

    private Map<ClaimId, List<String>> obstacles(String which, Object claims, String lock) {
        Map<ClaimId, List<String>> found = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT c.payee, v.hold_reason, l.reference, i.hold_reason,
                          c.digest IS NOT NULL AND (BINARY t.payee <> BINARY c.payee OR BINARY t.address <> BINARY c.address),
                          c.digest IS NOT NULL AND t.bank_key <> c.bank_key, c.id
                        FROM claim c JOIN vendor v ON v.id = c.vendor_id JOIN remit_to t ON t.id = c.remit_to_id
                        JOIN claim_line l ON l.claim_id = c.id JOIN invoice i ON i.id = l.invoice_id
                        WHERE
                        """ + which + " ORDER BY c.payee, c.id, l.id " + lock)
                .param("claims", claims)
                .query((java.sql.ResultSet r) -> {
                    String words =
                            obstacle(r.getString(2), r.getString(3), r.getString(4), r.getBoolean(5), r.getBoolean(6));
                    List<String> own = found.computeIfAbsent(new ClaimId(r.getLong(7)), none -> new ArrayList<>());
                    if (!words.isEmpty() && !own.contains(words)) {
                        own.add(words);
                    }
                });
        found.values().removeIf(List::isEmpty);
        return found;
    }

    private static String obstacle(
            @Nullable String vendorHeld, String reference, @Nullable String held, boolean moved, boolean rebanked) {
        if (vendorHeld != null) {
            return "the vendor is held, " + vendorHeld;
        }
        if (held != null) {
            return "invoice " + reference + " is held, " + held;
        }
        if (moved || rebanked) {
            return "its " + (moved ? "address" : "bank details") + " changed after the payment was sent for approval";
        }
        return "";
    }

    /** Frees the invoices of posted claims. */
    @Transactional
    public void release(Collection<ClaimId> claims) {
        if (claims.isEmpty()) {
            return;
        }
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

    /**
     * After every edit: who and what, the hand (L7), and a round void when the batch had been sent.
     *
     * @param was the batch's amount before, in minor units
     */
    void changed(Actor by, BatchEntity batch, String what, long was) {
        addHand(batch, by);
        voided(by, batch, what);
        if (batch.state != BatchState.DRAFT) {
            batch.state = batch.state.to(BatchState.DRAFT);
            batch.approvalRound++;
        }
        touch(batch, by, what);
        audit.record(
                by,
                "change batch",
                "batch " + batch.id,
                Map.of("what", what, "before", amount(batch, was), "after", amount(batch, amountMinor(batch.id))));
    }

    /** Everyone whose hand it is approves nothing of it (law L7). */
    @Transactional
    public void addHand(BatchId id, Actor by) {
        addHand(row(id), by);
    }

    private String amount(BatchEntity batch, long minor) {
        String currency = jdbc.sql("SELECT currency FROM bank_account WHERE id = ?")
                .param(batch.bankAccountId)
                .query(String.class)
                .single();
        return Money.ofMinor(minor, currency) + " " + currency;
    }

    /** Says that what was asked or given for a batch counts no more; nothing is said of a draft. */
    void voided(Actor by, BatchEntity batch, String what) {
        if (batch.state != BatchState.DRAFT) {
            events.publishEvent(new ApprovalVoided(by, view(batch), what));
        }
    }

    void addHand(BatchEntity batch, Actor by) {
        jdbc.sql("INSERT IGNORE INTO batch_hand (batch_id, person_id) VALUES (:batch, :person)")
                .param("batch", batch.id)
                .param("person", by.person().value())
                .update();
    }

    /** Gives a locked batch a new version, and says who did what to it last. */
    @Transactional
    public void note(Actor by, BatchId id, String what) {
        touch(row(id), by, what);
    }

    static void touch(BatchEntity batch, Actor by, String what) {
        batch.changedBy = by.person().value();
        batch.changedAt = by.now();
        batch.changedWhat = what.substring(0, Math.min(200, what.length()));
    }

    private List<ClaimEntity> claimRows(BatchId id) {
        return claimRows("standing_claim", id);
    }

    @SuppressWarnings("unchecked")
    private List<ClaimEntity> claimRows(String of, BatchId id) {
        return entities.createNativeQuery(
                        "SELECT c.* FROM " + of + " c WHERE c.batch_id = :batch ORDER BY c.order_key, c.id",
                        ClaimEntity.class)
                .setParameter("batch", id.value())
                .getResultList();
    }

    private Map<Long, Long> firstEntries(BatchId id) {
        Map<Long, Long> first = new HashMap<>();
        jdbc.sql("""
                        SELECT c.id, MIN(l.invoice_id) FROM claim c JOIN claim_line l ON l.claim_id = c.id AND l.kind = :kind
                        WHERE c.batch_id = :batch GROUP BY c.id
                        """)
                .param("batch", id.value())
                .param("kind", ClaimLine.Kind.INVOICE.name())
                .query((java.sql.ResultSet r) -> {
                    first.put(r.getLong(1), r.getLong(2));
                });
        return first;
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
                b.purpose,
                new BankAccountId(b.bankAccountId),
                new WayId(b.wayId),
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
