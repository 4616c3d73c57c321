package leveltally.core.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Currency;
import java.util.List;
import java.util.Set;
import leveltally.core.ledger.AccountList.Outcome;
import org.junit.jupiter.api.Test;

/** Accounts, months, bank accounts and calendars as they are set up. */
class SettingUpTest {
    private static final AccountFacts FUEL = new AccountFacts("5100", "Fuel", AccountKind.EXPENSE);
    private static final YearMonth TODAY = YearMonth.of(2026, 11);

    @Test
    void anAccountTakesNothingFromTheDayItIsClosed() {
        LedgerAccount account = new LedgerAccount(new AccountId(1), FUEL, LocalDate.of(2026, 12, 1));
        assertThatCode(() -> account.mustTake(LocalDate.of(2026, 11, 30))).doesNotThrowAnyException();
        assertThatThrownBy(() -> account.mustTake(LocalDate.of(2026, 12, 1)))
                .hasMessageContaining("5100 Fuel is closed from Tue 1 Dec 2026");
        assertThatThrownBy(() -> new AccountFacts("52 00", "x", AccountKind.EXPENSE))
                .hasMessageContaining("letters, digits");
        assertThatThrownBy(() -> new AccountFacts("5200", " ", AccountKind.EXPENSE))
                .hasMessageContaining("a name");
    }

    @Test
    void aListIsDecidedRowByRow() {
        var rows = List.of(
                new AccountList.Row(1, "5100", "Fuel", "expense"),
                new AccountList.Row(2, " 5200 ", "Chandlery", "Expense"),
                new AccountList.Row(3, "5200", "Chandlery again", "EXPENSE"),
                new AccountList.Row(4, "5300", "Galley", "dinner"),
                new AccountList.Row(5, "", "No code", "expense"),
                new AccountList.Row(6, "1400", "Prepayments", "other asset"));
        assertThat(AccountList.decide(rows, List.of(FUEL)))
                .extracting(AccountList.Decision::outcome)
                .containsExactly(
                        Outcome.SAME, Outcome.NEW, Outcome.REFUSED, Outcome.REFUSED, Outcome.REFUSED, Outcome.NEW);
        assertThat(AccountList.decide(List.of(new AccountList.Row(1, "5100", "Bunker fuel", "expense")), List.of(FUEL)))
                .singleElement()
                .satisfies(one -> {
                    assertThat(one.outcome()).isEqualTo(Outcome.RENAMED);
                    assertThat(one.why()).isEqualTo("was Fuel");
                });
        assertThat(AccountList.decide(List.of(new AccountList.Row(1, "5100", "Fuel", "income")), List.of(FUEL)))
                .singleElement()
                .satisfies(one -> assertThat(one.why()).contains("never changes"));
    }

    @Test
    void monthsFollowEachOtherWithoutAGap() {
        OpenedMonths none = new OpenedMonths(null, null);
        assertThat(none.next(TODAY)).isEqualTo(TODAY);
        assertThatCode(() -> none.mustTake(YearMonth.of(2025, 11), TODAY)).doesNotThrowAnyException();
        assertThatThrownBy(() -> none.mustTake(YearMonth.of(2029, 1), TODAY)).hasMessageContaining("two years");
        OpenedMonths some = new OpenedMonths(YearMonth.of(2026, 10), YearMonth.of(2026, 12));
        assertThat(some.next(TODAY)).isEqualTo(YearMonth.of(2027, 1));
        assertThatCode(() -> some.mustTake(YearMonth.of(2027, 1), TODAY)).doesNotThrowAnyException();
        assertThatCode(() -> some.mustTake(YearMonth.of(2026, 9), TODAY)).doesNotThrowAnyException();
        assertThatThrownBy(() -> some.mustTake(YearMonth.of(2026, 11), TODAY)).hasMessageContaining("there already");
        assertThatThrownBy(() -> some.mustTake(YearMonth.of(2027, 3), TODAY))
                .hasMessageContaining("Open January 2027 before March 2027");
        assertThatThrownBy(() -> some.mustTake(YearMonth.of(2026, 6), TODAY))
                .hasMessageContaining("Open September 2026 before June 2026");
    }

    @Test
    void aBankAccountHasARoutingNumberThatFitsAndANumberOfItsOwn() {
        Currency usd = Currency.getInstance("USD");
        AccountId cash = new AccountId(1);
        assertThat(new NewBankAccount(
                                " Operations ",
                                "Skerrow Trust",
                                usd,
                                new RoutingNumber("990044105"),
                                "0044 1772-0931",
                                cash)
                        .accountNumber())
                .isEqualTo("004417720931");
        assertThatThrownBy(() -> new RoutingNumber("990044104")).hasMessageContaining("990044104");
        assertThatThrownBy(() -> new NewBankAccount("x", "y", usd, new RoutingNumber("990044105"), "12A", cash))
                .hasMessageContaining("4 to 17 digits");
    }

    @Test
    void aBankWorksFromMondayToFridayWithoutItsHolidays() {
        BankingDays days =
                new BankingDays(HolidayList.read("date,name\n2026-12-25,Christmas Day\n2026-12-28;Boxing Day\n\n")
                        .keySet());
        assertThat(days.holidays()).isEqualTo(Set.of(LocalDate.of(2026, 12, 25), LocalDate.of(2026, 12, 28)));
        assertThat(days.isBankingDay(LocalDate.of(2026, 12, 24))).isTrue();
        assertThat(days.onOrAfter(LocalDate.of(2026, 12, 25))).isEqualTo(LocalDate.of(2026, 12, 29));
        assertThatThrownBy(() -> HolidayList.read("2026-12-25 Christmas\n2026-02-30 no day"))
                .hasMessageContaining("Line 2");
        assertThatThrownBy(() -> HolidayList.read("  ")).hasMessageContaining("one in a line");
        assertThatThrownBy(() -> HolidayList.read("25 Dec")).hasMessageContaining("Line 1");
    }
}
