package leveltally.core.selection;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;

class HorizonTest {
    private static final Horizon.Plan PLAN =
            new Horizon.Plan(day("2026-11-12"), 42, day("2026-11-13"), 14, 0, usd("500"));

    private static final List<OpenInvoice> LIVING = List.of(
            invoice(1, "100", "2026-11-05", "2026-12-05", "2", "2026-11-15"),
            invoice(2, "200", "2026-11-10", "2026-12-10", "2", "2026-11-30"));

    @Test
    void showsWhatFallsDueWhichDiscountsEndAndTheCashAfterEachRun() {
        Map<java.time.LocalDate, Horizon.Due> due = new HashMap<>();
        due.put(day("2026-11-01"), new Horizon.Due(2, usd("150")));
        due.put(day("2026-11-26"), new Horizon.Due(1, usd("50")));
        due.put(day("2026-12-01"), new Horizon.Due(1, usd("260")));
        Horizon horizon = Horizon.of(PLAN, due, LIVING, Money.zero(USD));
        assertThat(horizon.late()).isEqualTo(new Horizon.Due(2, usd("150")));
        assertThat(horizon.days()).hasSize(42);
        assertThat(horizon.days().get(3).dying()).isEqualTo(usd("2"));
        assertThat(horizon.days().get(14).due()).isEqualTo(new Horizon.Due(1, usd("50")));
        assertThat(horizon.runs())
                .extracting(run ->
                        run.date() + " " + run.invoices() + " " + run.pays() + " " + run.saves() + " " + run.cash())
                .containsExactly(
                        "2026-11-13 4 298.00 2.00 202.00",
                        "2026-11-27 2 456.00 4.00 -254.00",
                        "2026-12-11 0 0.00 0.00 -254.00");
        assertThat(horizon.runs().get(1).isShort()).isTrue();
    }

    @Test
    void cashThatIsNotKnownIsLeftOut() {
        Horizon.Plan plan = new Horizon.Plan(day("2026-11-12"), 7, day("2026-11-13"), 14, 0, null);
        assertThat(Horizon.of(plan, Map.of(), LIVING, Money.zero(USD)).runs())
                .singleElement()
                .satisfies(run -> assertThat(run.cash()).isNull());
    }

    @Test
    void cashAvailableIsExplainedLineByLine() {
        CashAvailable cash = CashAvailable.of(new CashAvailable.Known(
                day("2026-11-13"),
                usd("9000"),
                usd("300"),
                1,
                usd("250"),
                day("2026-11-11"),
                usd("1200"),
                2,
                usd("1000")));
        assertThat(cash.available()).isEqualTo(usd("6750"));
        assertThat(cash.lines())
                .extracting(line -> line.words() + "|" + line.detail() + "|" + line.amount())
                .containsExactly(
                        "Ledger cash|up to Fri 13 Nov 2026|9,000.00",
                        "Payments posted with a later ledger date|1 payment|-300.00",
                        "Cash movements the ledger does not have yet|the last of Wed 11 Nov 2026|250.00",
                        "Unposted payments of other batches|2 live batches|-1,200.00",
                        "The floor the company keeps||-1,000.00");
    }

    private static Horizon.Run run(String date, Money cash) {
        return new Horizon.Run(day(date), 1, usd("1"), usd("0"), cash);
    }

    @Test
    void theDrawingGoesFromTheLeastCashToTheMostAndShowsWhereNoneIs() {
        Horizon.Day full = new Horizon.Day(day("2026-11-12"), new Horizon.Due(1, usd("200")), 1, usd("2"));
        Horizon.Day quarter = new Horizon.Day(day("2026-11-13"), new Horizon.Due(1, usd("50")), 1, usd("1"));
        Horizon.Run rich = run("2026-11-13", usd("300"));
        Horizon.Run poor = run("2026-11-27", usd("-100"));
        Horizon horizon = new Horizon(new Horizon.Due(0, usd("0")), List.of(full, quarter), List.of(rich, poor));
        Horizon.Scale scale = horizon.scale();
        assertThat(List.of(scale.ofDue(full), scale.ofDue(quarter), scale.ofDying(quarter)))
                .containsExactly(100, 25, 50);
        assertThat(scale.zero()).isEqualTo(25);
        assertThat(List.of(scale.level(rich), scale.level(poor))).containsExactly(100, 0);
        Horizon unknown = new Horizon(horizon.late(), horizon.days(), List.of(run("2026-11-13", null)));
        assertThat(unknown.scale().zero()).isNull();
        assertThat(unknown.scale().level(unknown.runs().get(0))).isNull();
    }
}
