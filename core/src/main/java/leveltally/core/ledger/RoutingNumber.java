package leveltally.core.ledger;

/** A nine-digit bank routing number whose check digit fits (weights 3-7-1, modulo 10). */
public record RoutingNumber(String digits) {
    private static final int[] WEIGHTS = {3, 7, 1};

    public RoutingNumber {
        if (!digits.matches("\\d{9}")) {
            throw new IllegalArgumentException("routing number: nine digits wanted, not “" + digits + "”");
        }
        int sum = 0;
        for (int i = 0; i < 9; i++) {
            sum += (digits.charAt(i) - '0') * WEIGHTS[i % 3];
        }
        if (sum % 10 != 0) {
            throw new IllegalArgumentException("routing number " + digits + ": the check digit does not fit");
        }
    }
}
