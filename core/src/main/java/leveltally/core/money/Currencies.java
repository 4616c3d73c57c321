package leveltally.core.money;

import java.util.Currency;
import java.util.Locale;
import leveltally.core.Refusal;

/** Currencies as people type them, by their ISO 4217 code. */
public final class Currencies {
    private Currencies() {}

    /** @throws Refusal naming the field, where no currency has this code */
    public static Currency typed(String code, String field) {
        String wanted = code.strip().toUpperCase(Locale.ROOT);
        return Currency.getAvailableCurrencies().stream()
                .filter(one -> one.getCurrencyCode().equals(wanted))
                .findFirst()
                .orElseThrow(() -> Refusal.invalidField(
                        "no-currency", field, "“" + code + "” is no currency. Write its code, such as USD."));
    }
}
