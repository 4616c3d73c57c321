package leveltally.server.reports;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Stub;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.core.vendors.Delivery;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Deliveries;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.people.People;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a batch will pay, payee by payee, with every invoice, discount and credit. */
@Service
class PaymentsList implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Reference", 34, false),
            new Report.Head("Date", 18, false),
            new Report.Head("Settles", 16, true),
            new Report.Head("Discount", 14, true),
            new Report.Head("Paid", 18, true));

    private final Batches batches;
    private final ClaimRows claims;
    private final Deliveries deliveries;
    private final BankAccounts accounts;
    private final People people;

    PaymentsList(Batches batches, ClaimRows claims, Deliveries deliveries, BankAccounts accounts, People people) {
        this.batches = batches;
        this.claims = claims;
        this.deliveries = deliveries;
        this.accounts = accounts;
        this.people = people;
    }

    @Override
    public String name() {
        return "payments-list";
    }

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        BatchId id = asked.mustNameBatch();
        Batch batch = batches.get(id);
        BankAccount account = accounts.get(batch.account());
        List<Claim> paid = claims.of(id);
        Map<ClaimId, Stub> stubs = claims.listed(paid);
        Map<ClaimId, Delivery> goes = deliveries.of(id);
        Sums all = new Sums(account);
        List<Report.Line> lines = new ArrayList<>();
        for (Claim claim : paid) {
            Stub stub = stubs.get(claim.id());
            lines.add(Report.Line.group(
                    String.join(", ", concat(claim)),
                    goes.getOrDefault(claim.id(), Delivery.MAIL).words()));
            Sums own = new Sums(account);
            for (Stub.Row row : stub.rows()) {
                lines.add(Report.Line.row(
                        row.reference(),
                        date(row.date()),
                        row.settles().toString(),
                        row.discount().isZero() ? "" : row.discount().toString(),
                        row.paid().toString()));
                own.add(row);
                all.add(row);
            }
            lines.add(own.line(stub.entries() == 1 ? "1 entry" : stub.entries() + " entries"));
        }
        lines.add(Report.Line.group("Together"));
        lines.add(all.line(paid.size() == 1 ? "1 payment" : paid.size() + " payments"));
        return new Report(
                "What will be paid: " + batch.name(),
                List.of(
                        batch.state().words() + "; paid by " + batch.method().words() + " on "
                                + Dates.inWords(batch.checkDate()) + " from " + account.name() + ", "
                                + account.currency().getCurrencyCode(),
                        "prepared by "
                                + people.names().getOrDefault(batch.preparedBy().value(), "somebody")
                                + (batch.note().isEmpty() ? "" : "; " + batch.note())),
                HEADS,
                lines);
    }

    private static List<String> concat(Claim claim) {
        List<String> whole = new ArrayList<>(List.of(claim.remitTo().payee()));
        whole.addAll(claim.remitTo().lines());
        return whole;
    }

    private static String date(@org.jspecify.annotations.Nullable LocalDate date) {
        return date == null ? "" : Dates.inWords(date);
    }

    /** What rows come to. */
    private static final class Sums {
        private Money settles;
        private Money discount;
        private Money paid;

        Sums(BankAccount account) {
            settles = Money.zero(account.currency());
            discount = settles;
            paid = settles;
        }

        void add(Stub.Row row) {
            settles = settles.plus(row.settles());
            discount = discount.plus(row.discount());
            paid = paid.plus(row.paid());
        }

        Report.Line line(String words) {
            return Report.Line.total(words, "", settles.toString(), discount.toString(), paid.toString());
        }
    }
}
