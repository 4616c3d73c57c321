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

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "DE44 9999 9999 0532 0130 0 | one of DE has 22 characters, this has 21",
                "DE45 9999 9999 0532 0130 00 | check digits do not fit",
                "NO80 9999 1117 94X | letters and digits do not stand where those of NO have them",
                "US12 3456 7890 1234 567 | no country that has them begins with US",
                "XB00 1234 5678 9012 345 | check digits do not fit",
                "DE8 | begins with two letters"
            })
    void saysWhatOfAnIbanDoesNotFit(String account, String why) {
        assertThatThrownBy(() -> BankDetails.typed("", account)).hasMessageContaining(why);
    }

    @Test
    void savingsAndBicAreKept() {
        BankDetails savings = BankDetails.typed("990044105", "20934417", true, "");
        assertThat(savings.canonical()).isEqualTo("990044105 20934417 savings");
        assertThat(savings.canonicalAccount()).isEqualTo("990044105 20934417");
        assertThat(savings.masked()).isEqualTo("routing 990044105, savings account ••••4417");
        assertThat(BankDetails.of(savings.canonical())).isEqualTo(savings);
        BankDetails iban = BankDetails.typed("", "DE44 9999 9999 0532 0130 00", true, "dunl zz 2x");
        assertThat(iban.canonical()).isEqualTo("DE44999999990532013000 DUNLZZ2X");
        assertThat(iban.savings()).isFalse();
        assertThat(BankDetails.of(iban.canonical())).isEqualTo(iban);
        assertThatThrownBy(() -> BankDetails.typed("", "DE44999999990532013000", false, "ABCDQ9"))
                .isInstanceOfSatisfying(
                        Refusal.class, refused -> assertThat(refused.code()).isEqualTo("bic"));
        assertThatThrownBy(() -> BankDetails.typed("990044105", "20934417", false, "DUNLZZ2X"))
                .hasMessageContaining("Leave the BIC empty");
    }

    @Test
    void rejectsOneHand() {
        PersonId ines = new PersonId(1);
        TwoPeople.check(ines, new PersonId(2));
        assertThatThrownBy(() -> TwoPeople.check(ines, ines)).isInstanceOf(Refusal.class);
    }
}
