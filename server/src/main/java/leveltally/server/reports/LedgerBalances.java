package leveltally.server.reports;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What the ledger says of accounts at the end of a day. */
@Component
class LedgerBalances {
    private final JdbcClient jdbc;

    LedgerBalances(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** An account in a currency; {@code words} are its code and name. */
    record On(long account, String words, String currency) {}

    /** Credits less debits of each, up to that day. */
    Map<On, Money> owed(Collection<On> accounts, LocalDate day) {
        Map<On, Money> found = new HashMap<>();
        if (accounts.isEmpty()) {
            return found;
        }
        accounts.forEach(one -> found.put(one, Money.ofMinor(0, one.currency())));
        Map<Long, String> words = accounts.stream().collect(Collectors.toMap(On::account, On::words, (a, b) -> a));
        jdbc.sql(
                        "SELECT l.account_id, l.currency, SUM(l.credit_minor) - SUM(l.debit_minor) AS owed_minor FROM journal_line l"
                                + " JOIN journal_entry e ON e.id = l.entry_id WHERE l.account_id IN (:accounts) AND e.ledger_date <= :day"
                                + " GROUP BY l.account_id, l.currency")
                .param("accounts", words.keySet())
                .param("day", day)
                .query((java.sql.ResultSet r) -> {
                    long account = r.getLong("account_id");
                    String currency = r.getString("currency");
                    found.put(
                            new On(account, words.get(account), currency),
                            Money.ofMinor(r.getLong("owed_minor"), currency));
                });
        return found;
    }
}
