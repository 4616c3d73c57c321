package leveltally.core.vendors;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import leveltally.core.Refusal;
import leveltally.core.people.PersonId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BankDetailsTest {
    @ParameterizedTest
    @CsvSource({
        "'', ZZ65 0000 1234 5678 9012, ZZ65000012345678901 2, IBAN ZZ ••••9012",
        "9900 44105, 0044-1772-0931, 990044105 004417720931, 'routing 990044105, account ••••0931'"
    })
    void readsWhatWasTypedAndShowsOnlyItsEnd(String routing, String account, String canonical, String masked) {
        BankDetails details = BankDetails.typed(routing, account);
        assertThat(details.canonical()).isEqualTo(routing.isEmpty() ? canonical.replace(" ", "") : canonical);
        assertThat(details.masked()).isEqualTo(masked);
        assertThat(BankDetails.of(details.canonical())).isEqualTo(details);
    }

    @ParameterizedTest
    @CsvSource({
        "'', ZZ66 0000 1234 5678 9012, iban",
        "'', 004417720931, iban",
        "990044104, 004417720931, routing-number",
        "12, 004417720931, routing-number",
        "990044105, 12, account-number",
        "990044105, 12AB56, account-number"
    })
    void rejectsWhatIsNone(String routing, String account, String code) {
        assertThatThrownBy(() -> BankDetails.typed(routing, account))
                .isInstanceOfSatisfying(
                        Refusal.class, refused -> assertThat(refused.code()).isEqualTo(code));
    }

    @Test
    void rejectsOneHand() {
        PersonId ines = new PersonId(1);
        TwoPeople.check(ines, new PersonId(2));
        assertThatThrownBy(() -> TwoPeople.check(ines, ines)).isInstanceOf(Refusal.class);
    }
}
