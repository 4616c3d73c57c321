package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Debit;
import leveltally.core.batches.Purpose;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.ledger.AccountLine;
import leveltally.core.people.Actor;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.WorkIds;
import leveltally.server.invoices.OpenItems;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.WayToPay;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.hibernate.exception.ConstraintViolationException;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.UncategorizedSQLException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Batches whose payments somebody typed: each claim is written with its lines as they stand, nothing is reckoned anew. */
@Service
public class TypedBatches {
    /** As the database calls it. */
    private static final String AHEAD_ALREADY = "L9: something is paid ahead of this reference already";

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final WorkIds ids;
    private final Batches batches;
    private final Vendors vendors;
    private final OpenItems openItems;

    TypedBatches(
            EntityManager entities,
            JdbcClient jdbc,
            JdbcTemplate plain,
            WorkIds ids,
            Batches batches,
            Vendors vendors,
            OpenItems openItems) {
        this.vendors = vendors;
        this.openItems = openItems;
        this.entities = entities;
        this.jdbc = jdbc;
        this.plain = plain;
        this.ids = ids;
        this.batches = batches;
    }

    /**
     * A batch to be made.
     *
     * @param paidOn the day they are, or were, paid
     * @param ledgerDate when the ledger takes them: the day itself, or a later one where its month is locked
     */
    public record NewTyped(
            Purpose purpose,
            String name,
            String note,
            BankAccount account,
            WayToPay way,
            LocalDate paidOn,
            LocalDate ledgerDate) {}

    /** One payment; its lines come to what was paid. */
    public record Paid(VendorId vendor, long remitTo, List<ClaimLine> lines) {}

    /** A draft with its claims, in the order in which they were given. */
    public record Made(BatchId batch, List<ClaimId> claims) {}

    /** What a batch is called that somebody made of this typing; empty where none was, or the typing has no name. */
    @Transactional(readOnly = true)
    public Optional<String> madeOf(Actor by, String typedAs) {
        return typedAs.isEmpty()
                ? Optional.empty()
                : jdbc.sql("SELECT name FROM batch WHERE prepared_by = ? AND typed_as = ?")
                        .params(by.person().value(), typedAs)
                        .query(String.class)
                        .optional();
    }

    /** Makes the draft and reserves what its payments settled. */
    @Transactional
    public Made make(Actor by, NewTyped wanted, List<Paid> payments) {
        return make(by, wanted, "", payments);
    }

    /** The same, of a typing that is made once; the database refuses it the second time. */
    @Transactional
    public Made make(Actor by, NewTyped wanted, String typedAs, List<Paid> payments) {
        BatchEntity batch = BatchEntity.draft(
                by, wanted.purpose(), wanted.name(), wanted.note(), wanted.account(), wanted.way(), wanted.paidOn());
        batch.ledgerDate = wanted.ledgerDate();
        batch.typedAs = typedAs.isEmpty() ? null : typedAs;
        entities.persist(batch);
        flushed();
        batches.addHand(batch, by);
        return new Made(new BatchId(batch.id), write(batch, payments));
    }

    /**
     * Writes the payments of a draft anew.
     *
     * @throws Refusal when it was sent, or changed since it was looked at
     */
    @Transactional
    public Made replace(Actor by, BatchId id, long version, NewTyped wanted, List<Paid> payments) {
        BatchEntity batch = batches.lock(id, version);
        if (batch.purpose != wanted.purpose() || batch.state != BatchState.DRAFT) {
            throw Refusal.conflict(
                    "not-editable",
                    "This batch is " + batch.state.words()
                            + ", so what was typed into it stands. Have it sent back first.");
        }
        batch.name = wanted.name();
        batch.note = wanted.note();
        batch.checkDate = wanted.paidOn();
        batch.ledgerDate = wanted.ledgerDate();
        for (String row : List.of("ClaimLineEntity r", "ReservationEntity r", "ClaimEntity r")) {
            String of = row.startsWith("ClaimEntity") ? "r.id" : "r.claimId";
            entities.createQuery("delete from " + row + " where " + of
                            + " in (select c.id from ClaimEntity c where c.batchId = :batch)")
                    .setParameter("batch", batch.id)
                    .executeUpdate();
        }
        batches.addHand(batch, by);
        Batches.touch(batch, by, "typed its payments anew");
        entities.flush();
        return new Made(id, write(batch, payments));
    }

    private void flushed() {
        try {
            entities.flush();
        } catch (ConstraintViolationException again) {
            throw Refusal.conflict(
                    "made-already", "This is being made already. Look in Batches before you type it again.");
        }
    }

    private List<ClaimId> write(BatchEntity batch, List<Paid> payments) {
        WorkIds.Supply supply = ids.supply();
        Map<Long, Place> places =
                vendors.places(payments.stream().map(Paid::remitTo).toList());
        Map<InvoiceId, OpenInvoice> open = openItems.open(payments.stream()
                .flatMap(payment -> payment.lines().stream())
                .flatMap(line -> line.item().stream())
                .toList());
        List<ClaimId> claims = new ArrayList<>();
        List<Object[]> heads = new ArrayList<>();
        List<Object[]> lines = new ArrayList<>();
        List<Object[]> accounts = new ArrayList<>();
        for (Paid payment : payments) {
            long claim = supply.next();
            claims.add(new ClaimId(claim));
            ClaimLine first = payment.lines().get(0);
            Place place = places.get(payment.remitTo());
            heads.add(new Object[] {
                claim,
                batch.id,
                payment.vendor().value(),
                payment.remitTo(),
                place.remitTo().payee(),
                String.join("\n", place.remitTo().lines()),
                first.cash().currency().getCurrencyCode(),
                payment.lines().stream().mapToLong(line -> line.cash().minor()).sum(),
                place.vendorNumber(),
                place.postalCode()
            });
            for (ClaimLine line : payment.lines()) {
                long id = supply.next();
                OpenInvoice item = line.item().map(open::get).orElse(null);
                lines.add(new Object[] {
                    id,
                    claim,
                    line.kind().name(),
                    item == null ? null : item.id().value(),
                    line.reference(),
                    item == null ? null : item.invoiceDate(),
                    line.gross().currency().getCurrencyCode(),
                    line.gross().minor(),
                    line.discount().minor(),
                    line.cash().minor(),
                    item != null && line.gross().compareTo(item.open()) < 0,
                    line.ahead().map(ClaimLine.Prepayment::usableFrom).orElse(null)
                });
                accounts(id, line, accounts);
            }
        }
        plain.batchUpdate("""
                INSERT INTO claim (id, batch_id, vendor_id, remit_to_id, payee, address, currency, amount_minor, version,
                  vendor_number, postal_code, apart, stub_note) VALUES (?, ?, ?, ?, ?, ?, ?, ?, 0, ?, ?, TRUE, '')
                """, heads);
        lines(lines);
        plain.batchUpdate(
                "INSERT INTO claim_line_account (line_id, position, account_id, job, amount_minor) VALUES (?, ?, ?, ?, ?)",
                accounts);
        reserve(batch.id);
        return claims;
    }

    private void lines(List<Object[]> lines) {
        try {
            plain.batchUpdate("""
                    INSERT INTO claim_line (id, claim_id, kind, invoice_id, reference, invoice_date, currency, gross_minor,
                      discount_minor, credit_minor, cash_minor, part, usable_from, version, hidden, own_check)
                    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, 0, ?, ?, ?, 0, FALSE, FALSE)
                    """, lines);
        } catch (UncategorizedSQLException unlawful) {
            if (!String.valueOf(unlawful.getMessage()).contains(AHEAD_ALREADY)) {
                throw unlawful;
            }
            throw Refusal.conflict(
                    "ahead-meanwhile",
                    "Somebody paid ahead of one of these references meanwhile. Look at the rows again; nothing was kept.");
        }
    }

    private static void accounts(long line, ClaimLine of, List<Object[]> into) {
        if (of instanceof ClaimLine.Direct direct) {
            List<AccountLine> own = direct.accounts();
            for (int i = 0; i < own.size(); i++) {
                AccountLine one = own.get(i);
                into.add(new Object[] {
                    line, i + 1, one.account().value(), one.job(), one.amount().minor()
                });
            }
        } else if (of instanceof ClaimLine.Prepayment ahead) {
            for (Debit debit : ahead.debits()) {
                into.add(new Object[] {
                    line,
                    1,
                    ((Debit.Account) debit).account().value(),
                    "",
                    debit.amount().minor()
                });
            }
        }
    }

    private void reserve(long batch) {
        try {
            jdbc.sql("INSERT INTO reservation (invoice_id, batch_id, claim_id)"
                            + " SELECT l.invoice_id, c.batch_id, c.id FROM claim c JOIN claim_line l ON l.claim_id = c.id"
                            + " WHERE c.batch_id = ? AND l.invoice_id IS NOT NULL ORDER BY l.invoice_id")
                    .param(batch)
                    .update();
        } catch (DuplicateKeyException taken) {
            throw Refusal.conflict(
                    "in-another-batch",
                    "One of these invoices was taken into another batch meanwhile. Look at them again; nothing was kept.");
        }
    }

    /** The batches that reserve these, by invoice; own ones are left out. */
    @Transactional(readOnly = true)
    public Map<Long, String> reserving(Set<Long> invoices, long but) {
        Map<Long, String> found = new HashMap<>();
        if (!invoices.isEmpty()) {
            jdbc.sql("SELECT r.invoice_id, b.name FROM reservation r JOIN batch b ON b.id = r.batch_id"
                            + " WHERE r.invoice_id IN (:invoices) AND b.id <> :but")
                    .param("invoices", invoices)
                    .param("but", but)
                    .query((ResultSet r) -> {
                        found.put(r.getLong("invoice_id"), Objects.requireNonNull(r.getString("name")));
                    });
        }
        return found;
    }
}
