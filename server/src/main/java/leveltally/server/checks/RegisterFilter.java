package leveltally.server.checks;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.checks.Standing;
import leveltally.core.money.Money;
import leveltally.core.workline.Sought;
import org.jspecify.annotations.Nullable;

/**
 * What narrows the register, as SQL over {@code check_register n} and its {@code payment p}. Each word finds numbers from an
 * index, so that a word costs what it finds and not what there is (decision 0032).
 *
 * @param joins of the numbers that hold each word
 * @param where with {@code 1 = 1} first
 */
record RegisterFilter(String joins, String where, Map<String, Object> params) {
    /** @param currency in which amounts are typed */
    static RegisterFilter of(RegisterAsked asked, java.util.Currency currency, LocalDate today) {
        Map<String, Object> params = new HashMap<>();
        StringBuilder joins = new StringBuilder();
        List<Sought> words = asked.words();
        for (int i = 0; i < words.size(); i++) {
            joins.append(" JOIN (")
                    .append(holding(words.get(i), i, currency, params))
                    .append(") w")
                    .append(i)
                    .append(" ON w")
                    .append(i)
                    .append(".id = n.id");
        }
        StringBuilder where = new StringBuilder(" WHERE 1 = 1");
        put(where, params, "n.series_id = :series", "series", asked.series());
        put(
                where,
                params,
                "n.state = :state",
                "state",
                asked.standing().map(Standing::name).orElse(null));
        put(where, params, "p.check_date >= :from", "from", asked.from());
        put(where, params, "p.check_date <= :to", "to", asked.to());
        put(
                where,
                params,
                "p.check_date < :young",
                "young",
                asked.olderThan() == null ? null : today.minusDays(asked.olderThan()));
        Money least = amount(asked.amountFrom(), currency, "amountFrom");
        Money most = amount(asked.amountTo(), currency, "amountTo");
        put(where, params, "p.amount_minor >= :least", "least", least == null ? null : least.minor());
        put(where, params, "p.amount_minor <= :most", "most", most == null ? null : most.minor());
        if (least != null || most != null) {
            put(where, params, "p.currency = :currency", "currency", currency.getCurrencyCode());
        }
        return new RegisterFilter(joins.toString(), where.toString(), params);
    }

    private static @Nullable Money amount(@Nullable String typed, java.util.Currency currency, String field) {
        return typed == null || typed.isBlank() ? null : Money.typed(typed, currency, field);
    }

    private static void put(
            StringBuilder where, Map<String, Object> params, String condition, String name, @Nullable Object value) {
        if (value != null) {
            where.append(" AND ").append(condition);
            params.put(name, value);
        }
    }

    /** The numbers that hold a word: their own digits, their payee, their batch, what they pay, their amount. */
    private static String holding(Sought word, int i, java.util.Currency currency, Map<String, Object> params) {
        params.put("within" + i, word.within());
        params.put("beginning" + i, word.beginning());
        params.put("backwards" + i, word.backwards());
        String paying = " JOIN check_number c ON c.payment_id = y.id";
        String sql = """
                SELECT c.id FROM (SELECT id AS vendor_id FROM vendor WHERE name LIKE :within%1$d OR number LIKE :beginning%1$d
                  UNION SELECT vendor_id FROM remit_to WHERE payee LIKE :within%1$d) x
                  JOIN payment y ON y.vendor_id = x.vendor_id %2$s
                UNION SELECT c.id FROM batch b JOIN payment y ON y.batch_id = b.id %2$s WHERE b.name LIKE :within%1$d
                UNION SELECT c.id FROM (SELECT id FROM invoice WHERE reference LIKE :beginning%1$d
                  UNION SELECT id FROM invoice WHERE reference_backwards LIKE :backwards%1$d) x
                  JOIN claim_line l ON l.invoice_id = x.id JOIN payment y ON y.claim_id = l.claim_id %2$s
                """.formatted(i, paying);
        if (!word.numbersBeginningSo().isEmpty()) {
            sql += " UNION SELECT c.id FROM check_number c WHERE " + within(word);
        }
        Sought.Lettered lettered = word.lettered().orElse(null);
        if (lettered != null && !lettered.digits().numbersBeginningSo().isEmpty()) {
            params.put("prefix" + i, lettered.prefix());
            sql += " UNION SELECT c.id FROM number_series s JOIN check_number c ON c.series_id = s.id AND ("
                    + within(lettered.digits()) + ") WHERE s.prefix = :prefix" + i;
        }
        Money amount = word.amountIn(currency).orElse(null);
        if (amount != null) {
            params.put("amount" + i, amount.minor());
            sql += " UNION SELECT c.id FROM payment y" + paying + " WHERE y.amount_minor = :amount" + i;
        }
        return sql;
    }

    private static String within(Sought digits) {
        return digits.numbersBeginningSo().stream()
                .map(range -> "c.number BETWEEN " + range.first() + " AND " + range.last())
                .collect(Collectors.joining(" OR "));
    }
}
