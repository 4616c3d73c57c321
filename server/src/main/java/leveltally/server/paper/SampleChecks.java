package leveltally.server.paper;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.LocalDate;
import java.util.Collections;
import java.util.Comparator;
import java.util.Currency;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.Stub;
import leveltally.core.checks.SeriesId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Finding;
import leveltally.core.paper.LayoutCheck;
import leveltally.core.paper.StandardLayouts;
import leveltally.server.batches.ClaimRows;
import leveltally.server.checks.NumberSeries;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What a layout is seen with while it is made: a payment of the company, and the hardest it has to hold. */
@Component
class SampleChecks {
    /** Which check is shown. */
    enum Sample {
        PAYMENT("a payment of yours"),
        LONGEST_NAME("the longest name"),
        MOST_LINES("the most lines"),
        SMALLEST("the smallest amount"),
        LARGEST("the largest amount");

        private final String words;

        Sample(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    private static final int MANY_LINES = 45;
    /** No document may be larger. */
    private static final long LARGEST_MINOR = 9_999_999_999_999L;

    private final JdbcClient jdbc;
    private final ClaimRows claims;
    private final BankAccounts accounts;
    private final CheckPages pages;
    private final Typefaces typefaces;
    /** A layout is drawn at every step of its making; the payment it is seen with need not be read each time. */
    private final Cache<SeriesId, Map<Sample, CheckText>> lately = Caffeine.newBuilder()
            .expireAfterWrite(Duration.ofMinutes(1))
            .maximumSize(100)
            .build();

    SampleChecks(JdbcClient jdbc, ClaimRows claims, BankAccounts accounts, CheckPages pages, Typefaces typefaces) {
        this.jdbc = jdbc;
        this.claims = claims;
        this.accounts = accounts;
        this.pages = pages;
        this.typefaces = typefaces;
    }

    /** All that is wrong with a layout for the checks of a series. */
    List<Finding> findings(NumberSeries series, CheckLayout layout) {
        return LayoutCheck.of(layout, List.copyOf(of(series).values()), typefaces);
    }

    Map<Sample, CheckText> of(NumberSeries series) {
        return lately.get(series.id(), id -> find(series));
    }

    private Map<Sample, CheckText> find(NumberSeries series) {
        BankAccount account = accounts.list().stream()
                .filter(one -> one.ways().stream().anyMatch(way -> way.id().equals(series.way())))
                .findFirst()
                .orElseThrow();
        CheckText found = payment(series, account);
        // what even the standard layout cannot hold stays behind by name when it is printed, and is no fault of a
        // layout
        CheckText payment = standardHolds(found) ? found : madeUp(series, account);
        Currency currency = payment.amount().currency();
        Map<Sample, CheckText> samples = new EnumMap<>(Sample.class);
        samples.put(Sample.PAYMENT, payment);
        samples.put(
                Sample.LONGEST_NAME,
                longestNames().stream()
                        .map(name -> named(payment, name))
                        .filter(this::standardHolds)
                        .findFirst()
                        .orElse(payment));
        Stub.Row row = paidRow(payment);
        List<Stub.Row> many = Collections.nCopies(MANY_LINES, row);
        samples.put(
                Sample.MOST_LINES,
                paying(payment, Money.sum(many.stream().map(Stub.Row::paid).toList(), currency), many));
        samples.put(Sample.SMALLEST, paying(payment, Money.ofMinor(1, currency)));
        samples.put(Sample.LARGEST, paying(payment, Money.ofMinor(LARGEST_MINOR, currency)));
        return samples;
    }

    private boolean standardHolds(CheckText text) {
        try {
            pages.toLookAt(text, StandardLayouts.LETTER);
            pages.advice(text, StandardLayouts.LETTER);
            return true;
        } catch (Refusal beyondIt) {
            return false;
        }
    }

    /** A row that pays something; credits stand among them. */
    private static Stub.Row paidRow(CheckText text) {
        return text.stub().rows().stream()
                .filter(row -> row.paid().isPositive())
                .findFirst()
                .orElseThrow();
    }

    /** The newest claim of the series' way, of those with most lines; a made-up one before there is any. */
    private CheckText payment(NumberSeries series, BankAccount account) {
        CheckText.Payer payer = pages.payer(account.id(), series.way());
        Claim claim = newest(series.way());
        if (claim == null) {
            return madeUp(series, account);
        }
        Stub stub = claims.stubs(List.of(claim)).get(claim.id());
        LocalDate date = stub.rows().stream()
                .map(Stub.Row::date)
                .filter(java.util.Objects::nonNull)
                .max(Comparator.naturalOrder())
                .orElse(LocalDate.EPOCH);
        return CheckText.of(payer, claim, date, series.nextNumber(), stub, null);
    }

    private CheckText madeUp(NumberSeries series, BankAccount account) {
        Money amount = Money.ofMinor(122_500, account.currency());
        Money none = Money.zero(account.currency());
        LocalDate date = LocalDate.of(2026, 1, 5);
        Stub stub = new Stub(List.of(new Stub.Row("INVOICE-1", date, amount, none, amount)), "", 1);
        return new CheckText(
                pages.payer(account.id(), series.way()),
                "A vendor of yours",
                List.of("1 First Street", "Town 10001"),
                amount,
                date,
                series.nextNumber(),
                stub,
                null);
    }

    private @Nullable Claim newest(WayId way) {
        return jdbc.sql("SELECT b.id FROM batch b WHERE b.way_id = :way"
                        + " AND EXISTS (SELECT 1 FROM claim c WHERE c.batch_id = b.id) ORDER BY b.id DESC LIMIT 1")
                .param("way", way.value())
                .query(Long.class)
                .optional()
                .flatMap(batch -> claims.of(new BatchId(batch)).stream()
                        .max(Comparator.comparing((Claim claim) -> claim.lines().size())))
                .orElse(null);
    }

    private List<String> longestNames() {
        return jdbc.sql("SELECT payee FROM remit_to ORDER BY CHAR_LENGTH(payee) DESC LIMIT 50")
                .query(String.class)
                .list();
    }

    private static CheckText named(CheckText text, String payee) {
        return text.withPayee(payee);
    }

    private static CheckText paying(CheckText text, Money amount) {
        Stub.Row row = paidRow(text);
        Money none = Money.zero(amount.currency());
        return paying(text, amount, List.of(new Stub.Row(row.reference(), row.date(), amount, none, amount)));
    }

    private static CheckText paying(CheckText text, Money amount, List<Stub.Row> rows) {
        return text.withPayment(amount, new Stub(rows, text.stub().note(), rows.size()));
    }
}
