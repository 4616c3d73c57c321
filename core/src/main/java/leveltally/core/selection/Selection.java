package leveltally.core.selection;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;

/** The outcome of criteria over their candidates: every one of them is taken or left out with a reason. */
public final class Selection {

    /** One candidate and what became of it. */
    public record Row(Candidate candidate, Decision decision, boolean lostIfItWaits) {}

    /** The taken invoices of one vendor and remit-to, in the order of the batch. */
    public record ClaimDraft(VendorId vendor, long remitTo, String payee, List<Row> rows, Money amount) {}

    /** How many invoices a reason keeps out, and how much is open on them in the batch's currency. */
    public record LeftOutTotal(LeftOutReason reason, int count) {}

    private final Criteria criteria;
    private final List<Row> rows;

    private Selection(Criteria criteria, List<Row> rows) {
        this.criteria = criteria;
        this.rows = List.copyOf(rows);
    }

    /**
     * @param candidates open invoices that pass the dates, plus those added by hand
     * @param takenOut invoices the clerk does not want
     */
    public static Selection of(Criteria criteria, List<Candidate> candidates, Set<InvoiceId> takenOut) {
        List<Row> rows = new ArrayList<>(candidates.size());
        for (Candidate candidate : candidates) {
            boolean lost = criteria.lostIfItWaits(candidate.invoice());
            rows.add(new Row(candidate, decide(criteria, candidate, takenOut), lost));
        }
        return new Selection(criteria, rows);
    }

    private static Decision decide(Criteria criteria, Candidate candidate, Set<InvoiceId> takenOut) {
        var invoice = candidate.invoice();
        if (candidate.holdReason() != null) {
            return new Decision.LeftOut(LeftOutReason.HELD_INVOICE, candidate.holdReason());
        }
        if (candidate.vendorHoldReason() != null) {
            return new Decision.LeftOut(LeftOutReason.HELD_VENDOR, candidate.vendorHoldReason());
        }
        if (candidate.reservedBy() != null) {
            return new Decision.LeftOut(LeftOutReason.IN_ANOTHER_BATCH, candidate.reservedBy());
        }
        if (!invoice.open().currency().equals(criteria.currency())) {
            return new Decision.LeftOut(
                    LeftOutReason.OTHER_CURRENCY, invoice.open().currency().getCurrencyCode());
        }
        if (candidate.method() != criteria.method()) {
            return new Decision.LeftOut(
                    LeftOutReason.OTHER_METHOD, candidate.method().words());
        }
        if (invoice.invoiceDate().isAfter(criteria.checkDate())) {
            return new Decision.LeftOut(LeftOutReason.DATED_AFTER_CHECK_DATE, "");
        }
        if (criteria.enteredLater(invoice)) {
            return new Decision.LeftOut(LeftOutReason.ENTERED_IN_LATER_PERIOD, "");
        }
        if (takenOut.contains(invoice.id())) {
            return new Decision.LeftOut(LeftOutReason.TAKEN_OUT_BY_HAND, "");
        }
        return new Decision.Taken(invoice.payInFull(criteria.checkDate(), criteria.graceDays()));
    }

    public Criteria criteria() {
        return criteria;
    }

    public List<Row> rows() {
        return rows;
    }

    public List<Row> taken() {
        return rows.stream()
                .filter(row -> row.decision() instanceof Decision.Taken)
                .toList();
    }

    /** What all taken invoices cost together. */
    public Money toPay() {
        return sum(taken(), true);
    }

    /** What all taken invoices earn together. */
    public Money saved() {
        return sum(taken(), false);
    }

    /** In the order of the reasons; reasons without an invoice are absent. */
    public List<LeftOutTotal> leftOut() {
        Map<LeftOutReason, Integer> counts = new EnumMap<>(LeftOutReason.class);
        for (Row row : rows) {
            if (row.decision() instanceof Decision.LeftOut out) {
                counts.merge(out.reason(), 1, Integer::sum);
            }
        }
        return counts.entrySet().stream()
                .map(entry -> new LeftOutTotal(entry.getKey(), entry.getValue()))
                .toList();
    }

    /** One claim per vendor and remit-to, by payee name, then vendor and remit-to; that order decides the numbers. */
    public List<ClaimDraft> claims() {
        record Key(String name, long vendor, long remitTo) implements Comparable<Key> {
            @Override
            public int compareTo(Key other) {
                int byName = String.CASE_INSENSITIVE_ORDER.compare(name, other.name);
                int byVendor = byName != 0 ? byName : Long.compare(vendor, other.vendor);
                return byVendor != 0 ? byVendor : Long.compare(remitTo, other.remitTo);
            }
        }
        Map<Key, List<Row>> groups = new TreeMap<>();
        for (Row row : taken()) {
            var candidate = row.candidate();
            Key key = new Key(candidate.vendorName(), candidate.vendor().value(), candidate.remitTo());
            groups.computeIfAbsent(key, none -> new ArrayList<>()).add(row);
        }
        return groups.entrySet().stream()
                .map(group -> new ClaimDraft(
                        new VendorId(group.getKey().vendor()),
                        group.getKey().remitTo(),
                        group.getKey().name(),
                        List.copyOf(group.getValue()),
                        sum(group.getValue(), true)))
                .toList();
    }

    private Money sum(List<Row> of, boolean cash) {
        Money total = Money.zero(criteria.currency());
        for (Row row : of) {
            if (row.decision() instanceof Decision.Taken taken) {
                total = total.plus(
                        cash ? taken.payment().cash() : taken.payment().discount());
            }
        }
        return total;
    }
}
