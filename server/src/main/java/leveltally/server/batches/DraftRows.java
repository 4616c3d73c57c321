package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import jakarta.persistence.PersistenceException;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Draft;
import leveltally.core.batches.DraftClaim;
import leveltally.core.batches.DraftLine;
import leveltally.core.batches.Reckoning;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.selection.Selection;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.WorkIds;
import leveltally.server.invoices.OpenItems;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The claims of a draft as rows: read as what was decided, written as what it comes to. */
@Component
class DraftRows {
    private static final int FLUSH_EVERY = 5_000;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final OpenItems openItems;
    private final Vendors vendors;

    DraftRows(EntityManager entities, JdbcClient jdbc, WorkIds ids, OpenItems openItems, Vendors vendors) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.ids = ids;
        this.openItems = openItems;
        this.vendors = vendors;
    }

    /** What was decided; one statement, whatever the number of claims. */
    Draft draft(long batch) {
        record Head(VendorId vendor, long remitTo, boolean apart, String note) {}
        Map<Long, Head> heads = new LinkedHashMap<>();
        Map<Long, List<DraftLine>> lines = new HashMap<>();
        jdbc.sql("""
                        SELECT c.id, c.vendor_id, c.remit_to_id, c.apart, c.stub_note, l.kind, l.invoice_id, l.typed_minor,
                          l.currency, l.by_hand, l.hidden, l.own_check
                        FROM claim c JOIN claim_line l ON l.claim_id = c.id
                        WHERE c.batch_id = :batch ORDER BY c.id, l.id
                        """).param("batch", batch).query((ResultSet r) -> {
            long claim = r.getLong("id");
            if (!heads.containsKey(claim)) {
                heads.put(
                        claim,
                        new Head(
                                new VendorId(r.getLong("vendor_id")),
                                r.getLong("remit_to_id"),
                                r.getBoolean("apart"),
                                r.getString("stub_note")));
                lines.put(claim, new ArrayList<>());
            }
            lines.get(claim).add(line(r));
        });
        List<DraftClaim> claims = new ArrayList<>();
        heads.forEach((id, head) -> claims.add(new DraftClaim(
                new ClaimId(id), head.vendor(), head.remitTo(), head.apart(), head.note(), lines.get(id))));
        return new Draft(claims);
    }

    private static DraftLine line(ResultSet r) throws SQLException {
        Long typed = r.getObject("typed_minor", Long.class);
        return new DraftLine(
                ClaimLine.Kind.valueOf(r.getString("kind")),
                new InvoiceId(r.getLong("invoice_id")),
                typed == null ? null : Money.ofMinor(typed, r.getString("currency")),
                r.getBoolean("by_hand"),
                r.getBoolean("hidden"),
                r.getBoolean("own_check"));
    }

    /** Gives every claim of a draft its id. */
    Draft identified(Draft draft) {
        WorkIds.Supply supply = ids.supply();
        return new Draft(draft.claims().stream()
                .map(claim -> claim.id() == null ? claim.identified(new ClaimId(supply.next())) : claim)
                .toList());
    }

    /**
     * Writes claims that were just chosen, and reserves what they pay. The rows they rest on are shared first and compared,
     * so that nothing settled meanwhile is reserved.
     */
    void put(BatchEntity batch, List<Selection.ClaimDraft> chosen) {
        Map<InvoiceId, Money> open = new HashMap<>();
        for (Selection.ClaimDraft claim : chosen) {
            claim.rows()
                    .forEach(row -> open.put(
                            row.candidate().invoice().id(),
                            row.candidate().invoice().open()));
            claim.credits()
                    .forEach(use -> open.put(use.credit().id(), use.credit().open()));
        }
        openItems.shareUnchanged(open);
        Map<Long, Place> places = vendors.places(
                chosen.stream().map(claim -> claim.payee().remitTo()).toList());
        Map<InvoiceId, LocalDate> dates = new HashMap<>();
        for (Selection.ClaimDraft claim : chosen) {
            claim.rows()
                    .forEach(row -> dates.put(
                            row.candidate().invoice().id(),
                            row.candidate().invoice().invoiceDate()));
            claim.credits()
                    .forEach(use -> dates.put(use.credit().id(), use.credit().date()));
        }
        WorkIds.Supply supply = ids.supply();
        Writing writing = new Writing(batch, supply, dates, open);
        for (Selection.ClaimDraft claim : chosen) {
            DraftClaim draft = Draft.chosen(claim).identified(new ClaimId(supply.next()));
            writing.write(draft, Reckoning.of(claim), places.get(claim.payee().remitTo()), null);
        }
        writing.finish();
    }

    /** Replaces changed claims by what they are now; the amounts follow from the invoices as they are owed now. */
    void replace(BatchEntity batch, List<DraftClaim> before, List<DraftClaim> after, int graceDays) {
        Set<Long> gone = new HashSet<>();
        before.forEach(claim -> gone.add(value(claim)));
        Map<Long, ClaimEntity> kept = new HashMap<>();
        after.forEach(claim -> {
            ClaimEntity row = entities.find(ClaimEntity.class, value(claim));
            if (row != null) {
                kept.put(row.id, row);
            }
        });
        remove(gone);
        gone.removeAll(kept.keySet());
        if (!gone.isEmpty()) {
            entities.createQuery("delete from ClaimEntity c where c.id in :claims")
                    .setParameter("claims", gone)
                    .executeUpdate();
        }
        List<InvoiceId> named = after.stream()
                .flatMap(claim -> claim.lines().stream())
                .map(DraftLine::id)
                .toList();
        openItems.share(named);
        Map<InvoiceId, OpenInvoice> open = openItems.stillOpen(named);
        Map<InvoiceId, OpenCredit> credits = openItems.openCredits(named);
        Map<InvoiceId, LocalDate> dates = new HashMap<>();
        Map<InvoiceId, Money> amounts = new HashMap<>();
        open.forEach((id, invoice) -> {
            dates.put(id, invoice.invoiceDate());
            amounts.put(id, invoice.open());
        });
        credits.forEach((id, credit) -> {
            dates.put(id, credit.date());
            amounts.put(id, credit.open());
        });
        Map<Long, Place> places =
                vendors.places(after.stream().map(DraftClaim::remitTo).toList());
        Writing writing = new Writing(batch, ids.supply(), dates, amounts);
        for (DraftClaim claim : after) {
            List<ClaimLine> lines = Reckoning.of(claim, open, credits, batch.checkDate, graceDays);
            writing.write(claim, lines, places.get(claim.remitTo()), kept.get(value(claim)));
        }
        writing.finish();
    }

    private static long value(DraftClaim claim) {
        return java.util.Objects.requireNonNull(claim.id()).value();
    }

    private void remove(Collection<Long> claims) {
        if (!claims.isEmpty()) {
            for (String row : List.of("ClaimLineEntity", "ReservationEntity")) {
                entities.createQuery("delete from " + row + " r where r.claimId in :claims")
                        .setParameter("claims", claims)
                        .executeUpdate();
            }
        }
    }

    private void flush() {
        try {
            entities.flush();
        } catch (PersistenceException takenByOther) {
            throw takenMeanwhile(takenByOther);
        }
    }

    /** MariaDB's numbers: 1062 a key that stands already, 1213 a deadlock, 1205 a lock waited for too long. */
    private static RuntimeException takenMeanwhile(PersistenceException failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause()) {
            if (cause instanceof SQLException sql && (sql.getErrorCode() == 1213 || sql.getErrorCode() == 1205)) {
                return Refusal.conflict(
                        "busy",
                        "Somebody else is working on the same invoices at this moment. Nothing of yours was saved; "
                                + "try again now.");
            }
            if (cause instanceof SQLException sql && sql.getErrorCode() == 1062) {
                return Refusal.conflict(
                        "taken-meanwhile",
                        "Somebody else took one of these invoices into another batch at the same moment. "
                                + "Nothing of yours was saved; look at the list again.");
            }
        }
        return failed;
    }

    /** One writing of claims, flushed in blocks. */
    private final class Writing {
        private final BatchEntity batch;
        private final WorkIds.Supply supply;
        private final Map<InvoiceId, LocalDate> dates;
        private final Map<InvoiceId, Money> open;
        private final List<Object> written = new ArrayList<>();
        private final List<Object> below = new ArrayList<>();

        Writing(BatchEntity batch, WorkIds.Supply supply, Map<InvoiceId, LocalDate> dates, Map<InvoiceId, Money> open) {
            this.batch = batch;
            this.supply = supply;
            this.dates = dates;
            this.open = open;
        }

        void write(
                DraftClaim claim,
                List<ClaimLine> lines,
                Place place,
                @org.jspecify.annotations.Nullable ClaimEntity kept) {
            ClaimEntity row = kept == null ? new ClaimEntity() : kept;
            row.id = value(claim);
            row.batchId = batch.id;
            row.vendorId = claim.vendor().value();
            row.remitToId = claim.remitTo();
            row.payee = place.remitTo().payee();
            row.address = String.join("\n", place.remitTo().lines());
            row.vendorNumber = place.vendorNumber();
            row.postalCode = place.postalCode();
            row.apart = claim.apart();
            row.stubNote = claim.stubNote();
            row.currency = lines.get(0).cash().currency().getCurrencyCode();
            row.amountMinor =
                    lines.stream().mapToLong(line -> line.cash().minor()).sum();
            long first = lines.stream()
                    .filter(line -> line.kind() == ClaimLine.Kind.INVOICE)
                    .mapToLong(line -> item(line).value())
                    .min()
                    .orElseThrow();
            row.orderKey = batch.claimOrder.key(row.placed(first));
            if (kept == null) {
                persist(row);
            }
            Map<InvoiceId, DraftLine> decided = new HashMap<>();
            claim.lines().forEach(line -> decided.put(line.id(), line));
            for (ClaimLine line : lines) {
                below.add(line(row, line, decided.get(item(line))));
                ReservationEntity reservation = new ReservationEntity();
                reservation.invoiceId = item(line).value();
                reservation.batchId = batch.id;
                reservation.claimId = row.id;
                below.add(reservation);
            }
        }

        /** Claims first, then what names them: inserts are grouped by table, whatever the order they come in. */
        void finish() {
            DraftRows.this.flush();
            below.stream().filter(ClaimLineEntity.class::isInstance).forEach(this::persist);
            below.stream().filter(ReservationEntity.class::isInstance).forEach(this::persist);
            flush();
            written.forEach(entities::detach);
        }

        private void persist(Object row) {
            entities.persist(row);
            written.add(row);
            if (written.size() % FLUSH_EVERY == 0) {
                flush();
                written.forEach(entities::detach);
                written.clear();
            }
        }

        /** A draft pays invoices and credits only. */
        private static InvoiceId item(ClaimLine line) {
            return line.item().orElseThrow();
        }

        private ClaimLineEntity line(ClaimEntity claim, ClaimLine line, DraftLine decided) {
            ClaimLineEntity row = new ClaimLineEntity();
            row.id = supply.next();
            row.claimId = claim.id;
            row.kind = line.kind();
            row.invoiceId = item(line).value();
            row.reference = line.reference();
            row.invoiceDate = dates.get(item(line));
            row.currency = claim.currency;
            row.grossMinor = line.gross().minor();
            row.discountMinor = line.discount().minor();
            row.creditMinor = line.credit().minor();
            row.cashMinor = line.cash().minor();
            row.part = line.gross().compareTo(open.get(item(line))) < 0;
            Money typed = decided.typed();
            row.typedMinor = typed == null ? null : typed.minor();
            row.byHand = decided.byHand();
            row.hidden = decided.hidden();
            row.ownCheck = decided.ownCheck();
            return row;
        }
    }
}
