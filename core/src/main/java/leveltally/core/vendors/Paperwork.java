package leveltally.core.vendors;

import java.util.regex.Pattern;
import leveltally.core.DateStyle;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * What a vendor wishes of the papers that go with its payments.
 *
 * @param email where advice goes by mail; empty for nowhere
 * @param checks how its checks usually go
 * @param dates how dates are written for it; null for the layout's own way
 */
public record Paperwork(
        Advice advice,
        String email,
        Delivery checks,
        @Nullable DateStyle dates) {
    private static final Pattern EMAIL = Pattern.compile("[^@\\s<>,;\"]+@[^@\\s<>,;\"]+\\.[^@\\s<>,;\"]+");

    /** For whom nothing was said. */
    public static final Paperwork USUAL = new Paperwork(Advice.PAPER, "", Delivery.MAIL, null);

    /**
     * As somebody typed it.
     *
     * @throws Refusal naming the field that cannot be so
     */
    public static Paperwork typed(Advice advice, String typedEmail, Delivery checks, @Nullable DateStyle dates) {
        String email = typedEmail.strip();
        if (!email.isEmpty() && !isAddress(email)) {
            throw Refusal.invalidField(
                    "vendor-email", "email", "This is no mail address. Leave it empty where advice goes by paper.");
        }
        if (email.isEmpty() && advice.isMailed()) {
            throw Refusal.invalidField(
                    "vendor-email", "email", "Advice by mail needs an address. Type it, or let advice go by paper.");
        }
        return new Paperwork(advice, email, checks, dates);
    }

    /** Whether mail can be sent there: one address, without a name. */
    public static boolean isAddress(String text) {
        return text.length() <= 120 && EMAIL.matcher(text).matches();
    }
}
