package leveltally.core.ledger;

import leveltally.core.Refusal;

/** A nine-digit bank routing number whose check digit fits (weights 3-7-1, modulo 10). */
public record RoutingNumber(String digits) {
    private static final int[] WEIGHTS = {3, 7, 1};

    /** @throws Refusal when it is none */
    public RoutingNumber {
        digits = digits.replaceAll("[\\s-]", "");
        if (!digits.matches("\\d{9}") || weighted(digits) % 10 != 0) {
            throw Refusal.invalidField(
                    "routing-number",
                    "routing",
                    "“" + digits
                            + "” is no routing number: it has nine digits, and the last of them checks the others.");
        }
    }

    private static int weighted(String digits) {
        int sum = 0;
        for (int i = 0; i < digits.length(); i++) {
            sum += (digits.charAt(i) - '0') * WEIGHTS[i % WEIGHTS.length];
        }
        return sum;
    }
}
