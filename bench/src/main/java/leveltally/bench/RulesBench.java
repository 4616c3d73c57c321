package leveltally.bench;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.LedgerDays;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.CashWay;
import leveltally.core.selection.ClaimOrder;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Filters;
import leveltally.core.selection.Marks;
import leveltally.core.selection.Payee;
import leveltally.core.selection.Paying;
import leveltally.core.selection.Selection;
import leveltally.core.terms.Discount;
import leveltally.core.terms.PartPayment;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reach;
import leveltally.core.vendors.VendorId;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The rules alone, in core: terms, the selection of 10,000 candidates, and the choice among 2,000 claims. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@Fork(1)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
public class RulesBench {
    private static final Currency USD = Currency.getInstance("USD");
    private static final LocalDate CHECK = LocalDate.of(2026, 11, 13);
    private static final Terms TERMS = Terms.dayOfNextMonth(15, 25).withDiscount("2", 10);

    private final List<Candidate> tenThousand = candidates(10_000, 3_000);
    private final List<Candidate> twoThousandClaims = candidates(2_000, 2_000);

    private static List<Candidate> candidates(int count, int vendors) {
        Random random = new Random(7);
        List<Candidate> candidates = new ArrayList<>();
        BigDecimal rate = new BigDecimal("0.02");
        for (int i = 0; i < count; i++) {
            Money amount = Money.ofMinor(5_000 + random.nextInt(900_000), USD);
            LocalDate until = random.nextInt(3) == 0 ? null : CHECK.plusDays(random.nextInt(14));
            OpenInvoice invoice = new OpenInvoice(
                    new InvoiceId(i),
                    "R-" + i,
                    CHECK.minusDays(20),
                    CHECK.plusDays(random.nextInt(20)),
                    LedgerDays.from(CHECK.minusDays(20)),
                    amount,
                    amount,
                    Discount.whole(
                            amount,
                            until == null ? BigDecimal.ZERO : rate.multiply(BigDecimal.valueOf(1 + random.nextInt(2))),
                            until));
            long vendor = i % vendors;
            Payee payee = new Payee(
                    new VendorId(vendor),
                    "V" + vendor,
                    "Vendor " + vendor,
                    "Group",
                    1 + (int) (vendor % 9),
                    PaymentMethod.CHECK,
                    null,
                    vendor,
                    "Vendor " + vendor,
                    "",
                    new Reach(true, BankDetails.Kind.ROUTED, true));
            candidates.add(new Candidate(invoice, payee, false, null, null));
        }
        return candidates;
    }

    private static Criteria criteria(String limit, CashWay way) {
        Paying paying = new Paying(
                false,
                Paying.Grouping.PAYEE,
                ClaimOrder.PAYEE,
                null,
                limit == null ? null : Money.parse(limit, USD),
                way);
        return new Criteria(
                USD,
                PaymentMethod.CHECK,
                CHECK,
                CHECK,
                CHECK.plusDays(30),
                CHECK.plusDays(14),
                0,
                Filters.NONE,
                paying);
    }

    @Benchmark
    @OutputTimeUnit(TimeUnit.MICROSECONDS)
    public Terms.Schedule termsOfOneInvoice() {
        return TERMS.scheduleFor(LocalDate.of(2026, 1, 26));
    }

    @Benchmark
    @OutputTimeUnit(TimeUnit.MICROSECONDS)
    public PartPayment partPayment() {
        return tenThousand.get(1).invoice().pay(Money.ofMinor(1_000, USD), CHECK, 0);
    }

    @Benchmark
    @OutputTimeUnit(TimeUnit.MILLISECONDS)
    public Selection selectionOfTenThousand() {
        return Selection.of(criteria(null, CashWay.STOP_AT_THE_LINE), tenThousand, List.of(), Marks.NONE);
    }

    /** Half of what all claims cost is there to spend. */
    @Benchmark
    @OutputTimeUnit(TimeUnit.MILLISECONDS)
    public Selection mostDiscountOfTwoThousandClaims() {
        return Selection.of(criteria("4500000.00", CashWay.MOST_DISCOUNT), twoThousandClaims, List.of(), Marks.NONE);
    }

    /** Prints whether that choice is exact. */
    public static void main(String[] args) {
        Selection selection = new RulesBench().mostDiscountOfTwoThousandClaims();
        System.out.println("most discount of 2,000 claims: saves " + selection.saved() + ", error at most "
                + selection.error() + ", " + selection.claims().size() + " claims");
    }
}
