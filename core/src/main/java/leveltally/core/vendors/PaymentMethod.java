package leveltally.core.vendors;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** How a vendor is paid. */
public enum PaymentMethod {
    CHECK("check"),
    /** In a file of the network for batched payments between bank accounts, in USD. */
    ACH("ACH"),
    CREDIT_TRANSFER("credit transfer"),
    /** Ordered at the bank, payment by payment. */
    WIRE("wire"),
    /** No cash moves: what was owed to the vendor is owed to the card's issuer. */
    CARD("company card");

    private final String words;

    PaymentMethod(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** True where a file for the bank carries it. */
    public boolean isElectronic() {
        return this == ACH || this == CREDIT_TRANSFER;
    }

    /** True where cash leaves the bank account it is paid from. */
    public boolean movesCash() {
        return this != CARD;
    }

    /** The names of those that a file carries. */
    public static List<String> electronic() {
        return Arrays.stream(values())
                .filter(PaymentMethod::isElectronic)
                .map(PaymentMethod::name)
                .toList();
    }

    /** The names of those by which cash leaves. */
    public static List<String> movingCash() {
        return Arrays.stream(values())
                .filter(PaymentMethod::movesCash)
                .map(PaymentMethod::name)
                .toList();
    }

    /** Reads names between commas, as they are kept; none from an empty text. */
    public static Set<PaymentMethod> named(String joined) {
        return Arrays.stream(joined.split(","))
                .filter(name -> !name.isEmpty())
                .map(PaymentMethod::valueOf)
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(PaymentMethod.class)));
    }

    /** {@code Check 10012}, {@code Wire FT-2291}: what people call a payment that carries this number. */
    public String called(String number) {
        return switch (this) {
            case CHECK -> "Check " + number;
            case ACH -> "ACH payment " + number;
            case CREDIT_TRANSFER -> "Credit transfer " + number;
            case WIRE -> "Wire " + number;
            case CARD -> "Card payment " + number;
        };
    }
}
