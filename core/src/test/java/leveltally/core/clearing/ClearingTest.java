package leveltally.core.clearing;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.checks.NumberState;
import leveltally.core.ledger.BankingDays;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What clears a check, why one waits, and what a statement has to add up to. */
class ClearingTest {
    private static final int STALE = 180;

    private static Movement paid(String number, String amount, String on) {
        return new Movement(day(on), usd(amount).negated(), number, "", "", false);
    }

    private static Presented check(String prefix, NumberState paper, @Nullable PaymentState state) {
        return new Presented(
                prefix,
                41_237,
                paper,
                state == null
                        ? null
                        : new Presented.Carried(
                                new PaymentId(1),
                                "Gannet Rope Walk",
                                usd("1225.00"),
                                day("2026-11-13"),
                                day("2026-11-13"),
                                state,
                                day("2026-11-13")));
    }

    private static Clearing of(Movement movement, Presented... found) {
        return Clearing.of(movement, List.of(found), STALE);
    }

    @ParameterizedTest
    @CsvSource({
        // number, amount, day, paper, payment, what becomes of it
        "41237, 1225.00, 2026-11-16, PRINTED, OUTSTANDING, CLEARS",
        "00041237, 1225.00, 2026-11-13, PRINTED, OUTSTANDING, CLEARS",
        "41237, 1225.00, 2027-05-12, PRINTED, OUTSTANDING, CLEARS",
        "41237, 1225.00, 2027-05-13, PRINTED, OUTSTANDING, STALE",
        "41237, 1225.00, 2026-11-12, PRINTED, OUTSTANDING, EARLY",
        "41237, 1252.00, 2026-11-16, PRINTED, OUTSTANDING, AMOUNT_DIFFERS",
        // the amount is asked about first
        "41237, 1252.00, 2027-05-13, PRINTED, OUTSTANDING, AMOUNT_DIFFERS",
        "41237, 1225.00, 2026-11-16, PRINTED, STOPPED, STOPPED",
        "41237, 1225.00, 2026-11-16, PRINTED, VOIDED, VOIDED",
        "41237, 1225.00, 2026-11-16, PRINTED, CLEARED, PAID_TWICE",
        "41237, 1225.00, 2026-11-16, PRINTED, PREPARED, NOT_POSTED",
        "41237, 1225.00, 2026-11-16, WRITTEN, OUTSTANDING, CLEARS",
        "41237, 1225.00, 2026-11-16, TAKEN, PREPARED, NOT_ISSUED",
        "41237, 1225.00, 2026-11-16, SPOILED, , SPOILED",
        "41237, 1225.00, 2026-11-16, UNACCOUNTED, , NOT_ISSUED",
        "41237, -1225.00, 2026-11-16, PRINTED, CLEARED, REVERSED",
        "41237, -1225.00, 2026-11-16, PRINTED, VOIDED, GIVEN_BACK",
        "41237, -1225.00, 2026-11-16, SPOILED, , GIVEN_BACK",
        "'', 12.50, 2026-11-16, PRINTED, OUTSTANDING, NO_CHECK"
    })
    void numberAndAmountClear(
            String number, String amount, String on, NumberState paper, @Nullable PaymentState state, String becomes) {
        Clearing decided = of(paid(number, amount, on), check("", paper, state));
        assertThat(decided instanceof Clearing.Stands stands ? stands.kind().name() : "CLEARS")
                .isEqualTo(becomes);
    }

    @Test
    void lettersAreThoseOfItsSeriesOrAReasonToAsk() {
        Presented own = check("HW", NumberState.PRINTED, PaymentState.OUTSTANDING);
        Presented other = check("", NumberState.SPOILED, null);

        assertThat(of(paid("HW0041237", "1225.00", "2026-11-16"), other, own)).isEqualTo(new Clearing.Clears(own));
        assertThat(of(paid("hw-41237", "1225.00", "2026-11-16"), other, own))
                .isInstanceOfSatisfying(
                        Clearing.Stands.class,
                        stands -> assertThat(stands.kind()).isEqualTo(ExceptionKind.NUMBER_UNKNOWN));
        // without letters the one that carries this amount is meant
        assertThat(of(paid("41237", "1225.00", "2026-11-16"), own)).isEqualTo(new Clearing.Clears(own));
        assertThat(of(paid("no number", "1225.00", "2026-11-16")))
                .isInstanceOfSatisfying(
                        Clearing.Stands.class,
                        stands -> assertThat(stands.kind()).isEqualTo(ExceptionKind.NUMBER_UNKNOWN));
    }

    /** Every answer of every reason says what it does, and every reason has one. */
    @Test
    void everyAnswerSaysWhatItDoes() {
        Presented presented = check("", NumberState.PRINTED, PaymentState.OUTSTANDING);
        for (ExceptionKind kind : ExceptionKind.values()) {
            assertThat(kind.answers().isEmpty()).isEqualTo(kind == ExceptionKind.AGREES);
            for (Answer answer : kind.answers()) {
                String then = Consequence.of(
                        answer, paid("41237", "1252.00", "2026-11-16"), new Clearing.Stands(kind, presented, ""));
                assertThat(then).as(kind + " " + answer).endsWith(".").doesNotContain("null");
                assertThat(Character.isUpperCase(then.charAt(0))).isTrue();
            }
        }
        assertThat(Consequence.of(
                        Answer.BANKS_ERROR,
                        paid("41237", "1252.00", "2026-11-16"),
                        new Clearing.Stands(ExceptionKind.AMOUNT_DIFFERS, presented, "")))
                .isEqualTo("Check 41237 clears at 1,225.00; the bank owes 27.00 until it gives it back.");
        assertThat(Consequence.of(
                        Answer.BANKS_ERROR,
                        paid("41237", "1200.00", "2026-11-16"),
                        new Clearing.Stands(ExceptionKind.AMOUNT_DIFFERS, presented, "")))
                .isEqualTo("Check 41237 clears at 1,225.00; we owe the bank 25.00 until it takes it.");
    }

    private static BankReport statement(String number, String opening, String closing, Movement... movements) {
        return new BankReport(
                "", number, day("2026-11-16"), day("2026-11-16"), usd(opening), usd(closing), List.of(movements));
    }

    @Test
    void aStatementAddsUpAndFollowsTheOneBefore() {
        Movement fee = new Movement(day("2026-11-16"), usd("-12.50"), "", "Fee", "", false);
        statement("8", "100.00", "87.50", fee).mustAddUp();
        assertThatThrownBy(() -> statement("8", "100.00", "87.51", fee).mustAddUp())
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("so it should end with 87.50, but it says 87.51");

        LocalDate before = day("2026-11-13");
        BankReport next = statement("8", "100.00", "87.50", fee);
        assertThat(next.gapAfter("7", before, usd("100.00"))).isEmpty();
        assertThat(next.gapAfter("7", before, usd("99.00"))).get().asString().contains("it begins with 100.00");
        assertThat(next.gapAfter("6", before, usd("100.00"))).get().asString().contains("the one before was 6");
        // names that are no numbers do not count on
        assertThat(next.gapAfter("A", before, usd("100.00"))).isEmpty();
        assertThat(next.gapAfter("7", day("2026-11-17"), usd("100.00")))
                .get()
                .asString()
                .contains("before the one before");
    }

    @Test
    void theHourIsTheNextOneOfABankingDay() {
        ZoneId zone = ZoneId.of("America/New_York");
        DecisionHour hour = new DecisionHour(LocalTime.of(14, 0), zone, new BankingDays(Set.of(day("2026-11-26"))));
        // Wednesday before the hour, after it, and into the holiday and the weekend
        assertThat(hour.of(day("2026-11-25").atTime(9, 0).atZone(zone).toInstant()))
                .isEqualTo(day("2026-11-25").atTime(14, 0).atZone(zone).toInstant());
        assertThat(hour.of(day("2026-11-25").atTime(14, 0).atZone(zone).toInstant()))
                .isEqualTo(day("2026-11-27").atTime(14, 0).atZone(zone).toInstant());
        assertThat(hour.of(day("2026-11-27").atTime(20, 0).atZone(zone).toInstant()))
                .isEqualTo(day("2026-11-30").atTime(14, 0).atZone(zone).toInstant());
    }

    @Test
    void whatLeadsFromBankToLedgerIsAddedUpAndTheRestIsUnexplained() {
        var none = usd("0.00");
        var out = Reconciliation.Section.of(
                Reconciliation.Kind.OUTSTANDING,
                List.of(new Reconciliation.Row(day("2026-11-13"), "Check 41237", "", usd("-1225.00"))),
                none);
        var owed = Reconciliation.Section.of(
                Reconciliation.Kind.OWED,
                List.of(new Reconciliation.Row(day("2026-11-16"), "Check 41238", "", usd("27.00"))),
                none);
        Reconciliation all =
                new Reconciliation("Operations", day("2026-11-16"), usd("5000.00"), List.of(out, owed), usd("3802.00"));

        assertThat(all.unexplained()).isEqualTo(none);
        all.mustBeExplained();
        assertThat(all.explained()).isEqualTo(usd("27.00"));
        Reconciliation off =
                new Reconciliation("Operations", day("2026-11-16"), usd("5000.00"), List.of(out), usd("3802.00"));
        assertThat(off.unexplained()).isEqualTo(usd("27.00"));
        assertThatThrownBy(off::mustBeExplained).hasMessageContaining("differ by 27.00");
    }
}
