package leveltally.core.vendors;

import java.util.regex.Pattern;
import leveltally.core.Refusal;

/** A vendor's tax number, as it was typed without spaces and hyphens. */
public record TaxNumber(String plain) {
    private static final Pattern WRITTEN = Pattern.compile("[0-9A-Za-z]{5,20}");
    private static final int SHOWN = 4;

    /** @throws Refusal when it cannot be one */
    public TaxNumber {
        plain = plain.replaceAll("[\\s.-]", "").toUpperCase(java.util.Locale.ROOT);
        if (!WRITTEN.matcher(plain).matches()) {
            throw Refusal.invalidField(
                    "tax-number",
                    "taxNumber",
                    "A tax number has 5 to 20 letters and digits. Leave it empty where none is known.");
        }
    }

    /** Its end, by which people recognize it. */
    public String masked() {
        return "…" + plain.substring(plain.length() - SHOWN);
    }
}
