package leveltally.core.approval;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Currency;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PolicyTest {
    private static final Currency EUR = Currency.getInstance("EUR");
    private static final BankAccountId OPERATIONS = new BankAccountId(1);
    private static final BankAccountId WORKS = new BankAccountId(2);
    private static final Step ONE = Step.of("First look", Takers.of(Role.APPROVER), 1);
    private static final Step TWO = Step.of("Second look", Takers.of(Role.CONTROLLER), 1);

    private static final Policy POLICY = new Policy(List.of(
            new Route("Everyday", Set.of(), List.of(), List.of(), Set.of(), List.of(ONE)),
            new Route("Works", Set.of(WORKS), List.of(), List.of(), Set.of(), List.of(ONE)),
            new Route("Large", Set.of(), List.of(usd("50000")), List.of(usd("10000")), Set.of(), List.of(ONE, TWO)),
            new Route(
                    "Strict",
                    Set.of(),
                    List.of(usd("150000")),
                    List.of(),
                    Set.of(MarkKind.CHANGED_PAYEE, MarkKind.DUPLICATE),
                    List.of(ONE, TWO))));

    private static Policy.Choice choose(BankAccountId account, Money total, Money largest, MarkKind... marks) {
        return POLICY.checked().choose(new Policy.Asking(account, total, largest, Set.of(marks)));
    }

    @ParameterizedTest
    @CsvSource({
        "1, 900.00, 900.00, , Everyday, nothing about it",
        "2, 900.00, 900.00, , Works, the bank account",
        "1, 50000.00, 10000.00, , Everyday, nothing about it",
        "1, 50000.01, 10000.00, , Large, 'the total 50,000.01 is over 50,000.00'",
        "2, 12000.00, 10000.01, , Large, 'the largest payment 10,000.01 is over 10,000.00'",
        "1, 150000.01, 1.00, , Strict, 'over 150,000.00'",
        "1, 5.00, 5.00, CHANGED_PAYEE, Strict, 'a payment is marked: address or bank details changed'",
        "1, 5.00, 5.00, ONE_TIME, Everyday, nothing about it"
    })
    void takesTheStrictestThatIsAskedFor(
            long account, String total, String largest, MarkKind mark, String route, String why) {
        MarkKind[] marks = mark == null ? new MarkKind[0] : new MarkKind[] {mark};
        Policy.Choice choice = choose(new BankAccountId(account), usd(total), usd(largest), marks);
        assertThat(choice.route().name()).isEqualTo(route);
        assertThat(choice.why()).contains(why);
        assertThat(choice.considered()).hasSize(4);
    }

    @Test
    void aCurrencyWithoutLimitsTakesTheStrictest() {
        Money euro = Money.parse("5", EUR);
        Policy.Choice choice = choose(OPERATIONS, euro, euro);
        assertThat(choice.route().name()).isEqualTo("Strict");
        assertThat(choice.why()).contains("no limits in EUR");
        assertThat(choice.considered().get(1).why()).isEqualTo("it is for other bank accounts");
        assertThat(POLICY.paymentLimits(USD)).containsExactly(usd("10000"));
        assertThat(POLICY.paymentLimits(EUR)).isEmpty();
    }

    /** More money, a larger payment or one more mark never makes the route lighter. */
    @Test
    void nothingMakesTheRouteLighter() {
        java.util.Random random = new java.util.Random(7);
        List<String> order = POLICY.routes().stream().map(Route::name).toList();
        for (int i = 0; i < 2_000; i++) {
            BankAccountId account = random.nextBoolean() ? OPERATIONS : WORKS;
            Money total = Money.ofMinor(random.nextInt(20_000_000), USD);
            Money largest = Money.ofMinor(random.nextInt(2_000_000), USD);
            Set<MarkKind> few = random.nextBoolean() ? Set.of() : Set.of(MarkKind.ONE_TIME);
            Set<MarkKind> more = random.nextBoolean() ? few : Set.of(MarkKind.ONE_TIME, MarkKind.DUPLICATE);
            Money added = Money.ofMinor(random.nextInt(20_000_000), USD);
            String light = POLICY.choose(new Policy.Asking(account, total, largest, few))
                    .route()
                    .name();
            String heavy = POLICY.choose(new Policy.Asking(account, total.plus(added), largest.plus(added), more))
                    .route()
                    .name();
            assertThat(order.indexOf(heavy)).isGreaterThanOrEqualTo(order.indexOf(light));
        }
    }

    @Test
    void rejectsPoliciesThatSayTooLittle() {
        Route everyday = POLICY.routes().get(0);
        rejects("no conditions", POLICY.routes().get(3));
        rejects("name of its own", everyday, everyday);
        rejects("which may not approve", step(Step.of("x", Takers.of(Role.CLERK), 1)));
        rejects("needs 2 of 1", step(Step.of("x", Takers.named(Set.of(new PersonId(1))), 2)));
        rejects("nobody in it", step(new Step("x", Takers.of(Role.APPROVER), 1, 4, 8, Set.of())));
        rejects(
                "two limits",
                everyday,
                new Route("L", Set.of(), List.of(usd("1"), usd("2")), List.of(), Set.of(), List.of(ONE)));
        assertThatThrownBy(() -> Step.of("x", Takers.of(Role.APPROVER), 0)).hasMessageContaining("at least one");
        assertThatThrownBy(() -> new Takers(Role.APPROVER, Set.of(new PersonId(1))))
                .hasMessageContaining("either");
    }

    private static Route step(Step step) {
        return new Route("Everyday", Set.of(), List.of(), List.of(), Set.of(), List.of(step));
    }

    private static void rejects(String words, Route... routes) {
        assertThatThrownBy(() -> new Policy(List.of(routes)).checked())
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }
}
