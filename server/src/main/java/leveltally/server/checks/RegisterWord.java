package leveltally.server.checks;

import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import leveltally.core.money.Money;
import leveltally.core.workline.Sought;

/**
 * A word that is looked for in the register, as SQL in two ways that find the same: the numbers that hold it, from an index
 * each, and whether a row of {@code check_register n} and its {@code payment p} holds it. How few names hold a word is not
 * known beforehand, so the joins stand in the order in which they are to be done. A number holds a word in its own
 * digits, its payee, its batch, a reference it pays, its amount.
 *
 * @param place of the word among those looked for together, which tells their parameters apart
 * @param currency in which amounts are typed
 */
record RegisterWord(Sought word, int place, Currency currency) {
    private static final String PAYING = " STRAIGHT_JOIN check_number c ON c.payment_id = y.id";

    /** The numbers that hold it. */
    String finding() {
        return String.join(" UNION ", findings());
    }

    /** How many hold it, counted up to {@code :most} in each of the places where it can stand. */
    String counting() {
        return findings().stream()
                .map(one -> "(" + one + " LIMIT :most)")
                .collect(Collectors.joining(" UNION ALL ", "SELECT COUNT(*) FROM (", ") held"));
    }

    private List<String> findings() {
        List<String> found = new ArrayList<>();
        found.add(named(
                "SELECT c.id FROM (SELECT id AS vendor_id FROM vendor WHERE name LIKE :within# OR number LIKE :beginning#"
                        + " UNION SELECT vendor_id FROM remit_to WHERE payee LIKE :within#) x"
                        + " STRAIGHT_JOIN payment y ON y.vendor_id = x.vendor_id" + PAYING));
        found.add(named("SELECT c.id FROM batch b STRAIGHT_JOIN payment y ON y.batch_id = b.id" + PAYING
                + " WHERE b.name LIKE :within#"));
        found.add(named("SELECT c.id FROM (SELECT id FROM invoice WHERE reference LIKE :beginning#"
                + " UNION SELECT id FROM invoice WHERE reference_backwards LIKE :backwards#) x"
                + " STRAIGHT_JOIN claim_line l ON l.invoice_id = x.id STRAIGHT_JOIN payment y ON y.claim_id = l.claim_id"
                + PAYING));
        if (!word.numbersBeginningSo().isEmpty()) {
            found.add("SELECT c.id FROM check_number c WHERE " + within(word, "c"));
        }
        lettered()
                .ifPresent(one -> found.add(named(
                        "SELECT c.id FROM number_series s STRAIGHT_JOIN check_number c ON c.series_id = s.id AND ("
                                + within(one.digits(), "c") + ") WHERE s.prefix = :prefix#")));
        amount().ifPresent(amount ->
                found.add(named("SELECT c.id FROM payment y" + PAYING + " WHERE y.amount_minor = :amount#")));
        return found;
    }

    /** Whether a row holds it. */
    String held() {
        List<String> ways = new ArrayList<>();
        ways.add(named("p.vendor_id IN (SELECT id FROM vendor WHERE name LIKE :within# OR number LIKE :beginning#)"));
        ways.add(named("p.vendor_id IN (SELECT vendor_id FROM remit_to WHERE payee LIKE :within#)"));
        ways.add(named("p.batch_id IN (SELECT id FROM batch WHERE name LIKE :within#)"));
        if (!word.numbersBeginningSo().isEmpty()) {
            ways.add(within(word, "n"));
        }
        lettered()
                .ifPresent(one ->
                        ways.add(named("n.series_id IN (SELECT id FROM number_series WHERE prefix = :prefix#) AND ("
                                + within(one.digits(), "n") + ")")));
        amount().ifPresent(amount -> ways.add(named("p.amount_minor = :amount#")));
        ways.add(named(
                "EXISTS (SELECT 1 FROM claim_line l JOIN invoice i ON i.id = l.invoice_id WHERE l.claim_id = p.claim_id"
                        + " AND (i.reference LIKE :beginning# OR i.reference_backwards LIKE :backwards#))"));
        return ways.stream().collect(Collectors.joining(" OR ", "(", ")"));
    }

    /** Puts what its SQL names. */
    void into(Map<String, Object> params) {
        params.put("within" + place, word.within());
        params.put("beginning" + place, word.beginning());
        params.put("backwards" + place, word.backwards());
        lettered().ifPresent(one -> params.put("prefix" + place, one.prefix()));
        amount().ifPresent(amount -> params.put("amount" + place, amount.minor()));
    }

    private Optional<Sought.Lettered> lettered() {
        return word.lettered().filter(one -> !one.digits().numbersBeginningSo().isEmpty());
    }

    private Optional<Money> amount() {
        return word.amountIn(currency);
    }

    private String named(String sql) {
        return sql.replace("#", String.valueOf(place));
    }

    private static String within(Sought digits, String row) {
        return digits.numbersBeginningSo().stream()
                .map(range -> row + ".number BETWEEN " + range.first() + " AND " + range.last())
                .collect(Collectors.joining(" OR "));
    }
}
