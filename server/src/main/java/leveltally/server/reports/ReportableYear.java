package leveltally.server.reports;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.core.vendors.Reportable;
import leveltally.core.vendors.ReportableTotals;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What reportable vendors were paid in a year, by category; whose earlier year changed since is said beside it. */
@Service
class ReportableYear implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Vendor", 12, false),
            new Report.Head("Name", 36, false),
            new Report.Head("Tax number", 16, false),
            new Report.Head("Payments", 12, true),
            new Report.Head("Paid", 18, true),
            new Report.Head("Undone in a later year", 24, false));

    private final JdbcClient jdbc;

    ReportableYear(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public String name() {
        return "reportable";
    }

    private record Vendor(String number, String name, String taxNumber, Reportable as) {}

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        int year = asked.yearOr(by.today().getYear());
        Map<Vendor, List<ReportableTotals.Paid>> paid = paid(year);
        List<Report.Line> lines = new ArrayList<>();
        Map<String, Money> sums = new TreeMap<>();
        Reportable group = null;
        for (Map.Entry<Vendor, List<ReportableTotals.Paid>> entry : paid.entrySet()) {
            Vendor vendor = entry.getKey();
            for (ReportableTotals.Year total :
                    ReportableTotals.of(entry.getValue()).years()) {
                if (vendor.as() != group) {
                    close(sums, lines);
                    group = vendor.as();
                    lines.add(Report.Line.group(group.words()));
                }
                sums.merge(total.cash().currency().getCurrencyCode(), total.cash(), Money::plus);
                lines.add(Report.Line.row(
                        vendor.number(),
                        vendor.name(),
                        vendor.taxNumber(),
                        "" + total.count(),
                        total.cash() + " " + total.cash().currency().getCurrencyCode(),
                        total.changedLater() == 0 ? "" : total.changedLater() + ", stays as reported"));
            }
        }
        close(sums, lines);
        return new Report(
                "Reportable payments of " + year,
                List.of(
                        "cash paid by check date, without what was paid by company card; a reissue counts in the year of the payment it replaces"),
                HEADS,
                lines);
    }

    private static void close(Map<String, Money> sums, List<Report.Line> lines) {
        sums.values()
                .forEach(sum -> lines.add(Report.Line.total(
                        "together", "", "", "", sum + " " + sum.currency().getCurrencyCode(), "")));
        sums.clear();
    }

    private Map<Vendor, List<ReportableTotals.Paid>> paid(int year) {
        Map<Vendor, List<ReportableTotals.Paid>> found = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT v.number, v.name, v.tax_number_mask, v.reportable, x.paid_in,
                          CASE WHEN x.replaced OR x.falls THEN x.paid_in ELSE x.undone_in END AS undone_in,
                          COUNT(*) AS payments, SUM(x.amount_minor) AS amount_minor, x.currency
                        FROM reported_payment x JOIN vendor v ON v.id = x.vendor_id AND v.reportable <> :no
                        WHERE x.paid_in = :year
                        GROUP BY v.id, x.paid_in, CASE WHEN x.replaced OR x.falls THEN x.paid_in ELSE x.undone_in END, x.currency
                        ORDER BY v.reportable, v.name, v.number
                        """).param("no", Reportable.NO.name()).param("year", year).query((java.sql.ResultSet r) -> {
            Vendor vendor = new Vendor(
                    r.getString("number"),
                    r.getString("name"),
                    r.getString("tax_number_mask"),
                    Reportable.valueOf(r.getString("reportable")));
            found.computeIfAbsent(vendor, none -> new ArrayList<>())
                    .add(new ReportableTotals.Paid(
                            r.getInt("paid_in"),
                            r.getObject("undone_in", Integer.class),
                            r.getInt("payments"),
                            Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))));
        });
        return found;
    }
}
