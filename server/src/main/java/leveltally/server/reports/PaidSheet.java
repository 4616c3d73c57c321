package leveltally.server.reports;

import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import leveltally.server.mail.Enclosing;
import leveltally.server.mail.EnclosingSheet;
import leveltally.server.vendors.Vendors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** When was I paid: what a vendor was paid in a period, whatever carried it, and what each payment was for. */
@Service
class PaidSheet implements ReportSource, EnclosingSheet {
    private static final int MOST_YEARS = 3;
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Your reference", 30, false),
            new Report.Head("Dated", 22, false),
            new Report.Head("Amount", 18, true),
            new Report.Head("Discount", 14, true),
            new Report.Head("Paid", 18, true));

    private final JdbcClient jdbc;
    private final Vendors vendors;
    private final ReportFiles files;

    PaidSheet(JdbcClient jdbc, Vendors vendors, ReportFiles files) {
        this.jdbc = jdbc;
        this.vendors = vendors;
        this.files = files;
    }

    @Override
    public String name() {
        return "paid-to";
    }

    private record Paid(long payment, String called, LocalDate on, PaymentState state, Money amount) {
        /** Undone payments stand here, because the vendor may have seen them, and count nothing. */
        boolean counts() {
            return state != PaymentState.VOIDED && state != PaymentState.REVERSED;
        }
    }

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        LocalDate to = asked.to() == null ? by.today() : asked.to();
        LocalDate from = asked.from() == null ? usualFrom(to) : asked.from();
        return sheet(asked.mustNameVendor(), from, to);
    }

    @Override
    @Transactional(readOnly = true)
    public Enclosing.Enclosure of(VendorId vendor, LocalDate from, LocalDate to) {
        return new Enclosing.Enclosure(
                "paid-" + from + "-to-" + to + ".pdf",
                files.drawn(
                        sheet(vendor, from, to),
                        "what was paid from " + Dates.inWords(from) + " to " + Dates.inWords(to)));
    }

    /** How far back it goes where nothing is asked. */
    static LocalDate usualFrom(LocalDate to) {
        return to.minusMonths(3);
    }

    /** @throws Refusal when the period is none, or longer than anybody reads */
    static void mustBePeriod(LocalDate from, LocalDate to) {
        if (from.isAfter(to) || from.isBefore(to.minusYears(MOST_YEARS))) {
            throw Refusal.invalidField(
                    "no-period",
                    "from",
                    "A period begins before it ends, and is at most " + MOST_YEARS + " years long. Choose other days.");
        }
    }

    private Report sheet(VendorId vendor, LocalDate from, LocalDate to) {
        mustBePeriod(from, to);
        List<Report.Line> lines = new ArrayList<>();
        Map<String, Money> sums = new TreeMap<>();
        paid(vendor, from, to).forEach((paid, rows) -> {
            lines.add(Report.Line.group(
                    paid.called() + ", " + Dates.inWords(paid.on()) + ", " + said(paid.state()),
                    paid.amount() + " " + paid.amount().currency().getCurrencyCode()));
            lines.addAll(rows);
            if (paid.counts()) {
                sums.merge(paid.amount().currency().getCurrencyCode(), paid.amount(), Money::plus);
            }
        });
        sums.forEach(
                (currency, sum) -> lines.add(Report.Line.total("together, " + currency, "", "", "", sum.toString())));
        return new Report(
                "Paid to " + vendors.get(vendor).name(),
                List.of("from " + Dates.inWords(from) + " to " + Dates.inWords(to) + ", by the day it was paid"),
                HEADS,
                lines);
    }

    /** What a vendor understands of the states of a payment. */
    private static String said(PaymentState state) {
        return switch (state) {
            case CLEARED -> "paid by our bank";
            case OUTSTANDING -> "sent";
            default -> state.words();
        };
    }

    private Map<Paid, List<Report.Line>> paid(VendorId vendor, LocalDate from, LocalDate to) {
        Map<Paid, List<Report.Line>> found = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT p.id, k.method, k.number, COALESCE(f.pays_on, w.sent_on, p.check_date) AS paid_on, p.state,
                          p.amount_minor, p.currency, l.kind, l.reference, l.invoice_date, l.gross_minor, l.discount_minor, l.cash_minor
                        FROM payment p JOIN payment_carried k ON k.payment_id = p.id JOIN claim_line l ON l.claim_id = p.claim_id
                        LEFT JOIN electronic_item i ON i.payment_id = p.id LEFT JOIN bank_file f ON f.id = i.file_id
                        LEFT JOIN wire_order w ON w.payment_id = p.id
                        WHERE p.vendor_id = :vendor AND p.posted_entry_id IS NOT NULL
                          AND COALESCE(f.pays_on, w.sent_on, p.check_date) BETWEEN :from AND :to
                        ORDER BY paid_on, p.id, l.kind DESC, l.invoice_date, l.id
                        """)
                .param("vendor", vendor.value())
                .param("from", from)
                .param("to", to)
                .query((ResultSet r) -> {
                    String currency = r.getString("currency");
                    Paid paid = new Paid(
                            r.getLong("id"),
                            PaymentMethod.valueOf(r.getString("method")).called(r.getString("number")),
                            r.getObject("paid_on", LocalDate.class),
                            PaymentState.valueOf(r.getString("state")),
                            Money.ofMinor(r.getLong("amount_minor"), currency));
                    boolean credit = r.getString("kind").equals(ClaimLine.Kind.CREDIT.name());
                    Money gross = Money.ofMinor(r.getLong("gross_minor"), currency);
                    LocalDate dated = r.getObject("invoice_date", LocalDate.class);
                    Money discount = Money.ofMinor(r.getLong("discount_minor"), currency);
                    found.computeIfAbsent(paid, none -> new ArrayList<>())
                            .add(Report.Line.row(
                                    r.getString("reference"),
                                    dated == null ? "" : Dates.inWords(dated),
                                    (credit ? gross.negated() : gross).toString(),
                                    discount.isZero() ? "" : discount.toString(),
                                    credit
                                            ? ""
                                            : Money.ofMinor(r.getLong("cash_minor"), currency)
                                                    .toString()));
                });
        return found;
    }
}
