package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Stub;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountLine;
import leveltally.core.money.Money;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.TwoPeople;
import leveltally.core.vendors.VendorId;
import leveltally.server.company.Companies;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The claims of batches: what they pay, what their stubs list, what of them was frozen and agreed to. */
@Service
public class ClaimRows {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Vendors vendors;
    private final Companies companies;

    ClaimRows(EntityManager entities, JdbcClient jdbc, Vendors vendors, Companies companies) {
        this.companies = companies;
        this.entities = entities;
        this.jdbc = jdbc;
        this.vendors = vendors;
    }

    /**
     * Freezes payee, address and bank details of a locked batch's claims as the vendors have them now.
     *
     * @throws Refusal naming the payees whose address waits for a second person, where money would still go to it
     */
    @Transactional
    public void freeze(BatchId id) {
        List<ClaimEntity> claims = claimRows(id);
        Map<Long, Place> places =
                vendors.places(claims.stream().map(c -> c.remitToId).toList());
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        Map<Long, Long> firstEntries = firstEntries(id);
        Set<String> waiting = new TreeSet<>();
        boolean byTwo = companies.company().oneTimeByTwo();
        for (ClaimEntity claim : claims) {
            Place place = places.get(claim.remitToId);
            claim.payee = place.remitTo().payee();
            claim.address = String.join("\n", place.remitTo().lines());
            claim.bankSealed = place.bankSealed();
            claim.bankKey = place.remitTo().bankKey();
            claim.bankMask = place.bankMask();
            claim.orderKey = batch.claimOrder.key(claim.placed(firstEntries.getOrDefault(claim.id, claim.id)));
            if (!place.inForce()
                    && !batch.purpose.isAfterTheFact()
                    && TwoPeople.mustAgree(batch.method, place.oneTime(), byTwo)) {
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

    /**
     * The claims in the order that decides the numbers; at most three statements, whatever their
     * number. Rows that fit no claim are told, they end no reading.
     */
    @Transactional(readOnly = true, noRollbackFor = IllegalArgumentException.class)
    public List<Claim> of(BatchId id) {
        return views(claimRows(id));
    }

    /** The same with those that were taken out after they had a number: what the documents of a batch were drawn of. */
    @Transactional(readOnly = true)
    public List<Claim> ever(BatchId id) {
        return views(claimRows("claim", id));
    }

    private List<Claim> views(List<ClaimEntity> claims) {
        Map<Long, List<ClaimLine>> lines = new HashMap<>();
        List<ClaimLineEntity> rows = linesOf(claims.stream().map(c -> c.id).toList());
        Map<Long, List<AccountLine>> accounts = accountsOf(rows);
        for (ClaimLineEntity row : rows) {
            lines.computeIfAbsent(row.claimId, none -> new ArrayList<>())
                    .add(line(row, accounts.getOrDefault(row.id, List.of())));
        }
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

    /** Bank details of a batch's claims as they were when it was sent, sealed; those without any are missing. */
    @Transactional(readOnly = true)
    public Map<ClaimId, String> sealedBanks(BatchId id) {
        Map<ClaimId, String> sealed = new HashMap<>();
        for (ClaimEntity claim : claimRows(id)) {
            if (claim.bankSealed != null) {
                sealed.put(new ClaimId(claim.id), claim.bankSealed);
            }
        }
        return sealed;
    }

    /** What is shown of them. */
    @Transactional(readOnly = true)
    public Map<ClaimId, String> maskedBanks(BatchId id) {
        return claimRows(id).stream()
                .collect(Collectors.toMap(claim -> new ClaimId(claim.id), claim -> claim.bankMask));
    }

    /** What the stub of each claim lists; two statements, whatever their number. */
    @Transactional(readOnly = true)
    public Map<ClaimId, Stub> stubs(Collection<Claim> claims) {
        return stubs(claims, false);
    }

    /** The same with every line, for the company's own eyes: none is hidden. */
    @Transactional(readOnly = true)
    public Map<ClaimId, Stub> listed(Collection<Claim> claims) {
        return stubs(claims, true);
    }

    private Map<ClaimId, Stub> stubs(Collection<Claim> claims, boolean whole) {
        List<Long> ids = claims.stream().map(claim -> claim.id().value()).toList();
        Map<InvoiceId, LocalDate> dates = new HashMap<>();
        Set<InvoiceId> hidden = new HashSet<>();
        linesOf(ids).forEach(line -> {
            if (line.invoiceId != null) {
                dates.put(new InvoiceId(line.invoiceId), line.invoiceDate);
                if (line.hidden && !whole) {
                    hidden.add(new InvoiceId(line.invoiceId));
                }
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

    long amountMinor(long batch) {
        return jdbc.sql("SELECT COALESCE(SUM(amount_minor), 0) FROM standing_claim WHERE batch_id = :batch")
                .param("batch", batch)
                .query(Long.class)
                .single();
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
                        SELECT c.id, MIN(l.invoice_id) AS first_invoice FROM claim c JOIN claim_line l ON l.claim_id = c.id AND l.kind = :kind
                        WHERE c.batch_id = :batch GROUP BY c.id
                        """)
                .param("batch", id.value())
                .param("kind", ClaimLine.Kind.INVOICE.name())
                .query((java.sql.ResultSet r) -> {
                    first.put(r.getLong("id"), r.getLong("first_invoice"));
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

    /** What lines without an invoice debit; nothing is asked where every line has one. */
    private Map<Long, List<AccountLine>> accountsOf(List<ClaimLineEntity> lines) {
        Map<Long, String> currencies = new HashMap<>();
        lines.stream().filter(line -> line.invoiceId == null).forEach(line -> currencies.put(line.id, line.currency));
        Map<Long, List<AccountLine>> found = new HashMap<>();
        if (!currencies.isEmpty()) {
            jdbc.sql("SELECT line_id, account_id, job, amount_minor FROM claim_line_account"
                            + " WHERE line_id IN (:lines) ORDER BY line_id, position")
                    .param("lines", currencies.keySet())
                    .query((ResultSet r) -> {
                        long line = r.getLong("line_id");
                        found.computeIfAbsent(line, none -> new ArrayList<>())
                                .add(new AccountLine(
                                        new AccountId(r.getLong("account_id")),
                                        r.getString("job"),
                                        Money.ofMinor(r.getLong("amount_minor"), currencies.get(line))));
                    });
        }
        return found;
    }

    private static ClaimLine line(ClaimLineEntity row, List<AccountLine> accounts) {
        ClaimLine line = paying(row, accounts);
        return row.keptOf == null ? line : new ClaimLine.Kept(line, new ClaimId(row.keptOf));
    }

    private static ClaimLine paying(ClaimLineEntity row, List<AccountLine> accounts) {
        Currency currency = Currency.getInstance(row.currency);
        Money gross = Money.ofMinor(row.grossMinor, currency);
        return switch (row.kind) {
            case INVOICE ->
                new ClaimLine.Invoice(
                        item(row),
                        row.reference,
                        gross,
                        Money.ofMinor(row.discountMinor, currency),
                        Money.ofMinor(row.creditMinor, currency));
            case CREDIT -> new ClaimLine.Credit(item(row), row.reference, gross);
            case PREPAYMENT ->
                new ClaimLine.Prepayment(row.reference, only(row, accounts).account(), gross, row.usableFrom);
            case DIRECT -> new ClaimLine.Direct(row.reference, accounts);
            case KEPT -> throw new IllegalArgumentException("line " + row.id + " is kept, but of what?");
        };
    }

    private static InvoiceId item(ClaimLineEntity row) {
        if (row.invoiceId == null) {
            throw new IllegalArgumentException("line " + row.id + " names no invoice");
        }
        return new InvoiceId(row.invoiceId);
    }

    private static AccountLine only(ClaimLineEntity row, List<AccountLine> accounts) {
        if (accounts.size() != 1) {
            throw new IllegalArgumentException("line " + row.id + " debits " + accounts.size() + " accounts, not one");
        }
        return accounts.get(0);
    }
}
