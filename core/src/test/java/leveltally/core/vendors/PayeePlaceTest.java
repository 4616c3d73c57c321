package leveltally.core.vendors;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class PayeePlaceTest {
    private static final PayeePlace BEFORE = new PayeePlace(
            "Bollard", "1 Quay\nSkerrow", "41001", new KnownBank("k1", "a1", "••21", BankDetails.Kind.ROUTED));

    private static PayeePlace place(String address, String bankKey) {
        return new PayeePlace(
                "Bollard",
                address,
                "41001",
                bankKey.isEmpty() ? KnownBank.NONE : new KnownBank(bankKey, bankKey, "••99", BankDetails.Kind.ROUTED));
    }

    @Test
    void saysWhatIsAnother() {
        assertThat(BEFORE.changeFrom(PayeePlace.NOWHERE)).isEqualTo("new address");
        assertThat(BEFORE.changeFrom(BEFORE)).isEmpty();
        assertThat(place("2 Quay", "k1").changeFrom(BEFORE)).isEqualTo("address");
        assertThat(place(BEFORE.address(), "k2").changeFrom(BEFORE)).isEqualTo("bank details");
        assertThat(place("2 Quay", "").changeFrom(BEFORE)).isEqualTo("address and bank details");
    }

    @Test
    void moneyGoesElsewhereOnlyWhereThereIsAnotherAccount() {
        assertThat(place("2 Quay", "k2").isRebankedFrom(BEFORE)).isTrue();
        assertThat(place("2 Quay", "k1").isRebankedFrom(BEFORE)).isFalse();
        assertThat(place("2 Quay", "").isRebankedFrom(BEFORE)).isFalse();
        assertThat(place("2 Quay", "k2").withBankOf(BEFORE).changeFrom(BEFORE)).isEqualTo("address");
        assertThat(BEFORE.inWords()).isEqualTo("Bollard, 1 Quay, Skerrow, ••21");
        assertThat(PayeePlace.NOWHERE.inWords()).isEqualTo("none");
    }
}
