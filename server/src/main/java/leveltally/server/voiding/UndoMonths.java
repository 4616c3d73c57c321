package leveltally.server.voiding;

import java.time.YearMonth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.Period;
import leveltally.core.money.Money;
import leveltally.core.voiding.Months;
import leveltally.server.ledger.Periods;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The months that undoing concerns, before and after, as they are drawn. */
@Component
class UndoMonths {
    private final JdbcClient jdbc;
    private final Periods periods;

    UndoMonths(JdbcClient jdbc, Periods periods) {
        this.jdbc = jdbc;
        this.periods = periods;
    }

    /** Those in which payments are undone and those in which they were posted. */
    Map<YearMonth, Period> periods(List<Looked> looked) {
        Set<YearMonth> months = new HashSet<>();
        looked.forEach(one -> {
            months.add(YearMonth.from(one.on()));
            months.add(YearMonth.from(one.payment().ledgerDate()));
        });
        return periods.known(months);
    }

    List<UndoView.UndoneMonth> of(
            List<JournalEntry> writing,
            List<JournalEntry> undone,
            Map<Long, String> names,
            Map<YearMonth, Period> known) {
        if (writing.isEmpty()) {
            return List.of();
        }
        Months months = Months.of(moved(writing, undone), undone, writing);
        Map<YearMonth, Long> most = new HashMap<>();
        months.lines()
                .forEach(line -> List.of(line.before(), line.after())
                        .forEach(amount -> most.merge(line.month(), Math.abs(amount.minor()), Math::max)));
        Map<YearMonth, List<UndoView.MovedView>> by = new LinkedHashMap<>();
        for (Months.Line line : months.lines()) {
            by.computeIfAbsent(line.month(), none -> new ArrayList<>())
                    .add(new UndoView.MovedView(
                            names.get(line.account().value()),
                            line.before().currency().getCurrencyCode(),
                            line.before().toString(),
                            line.after().toString(),
                            place(line.before(), most.get(line.month())),
                            place(line.after(), most.get(line.month())),
                            line.moves()));
        }
        return by.entrySet().stream()
                .filter(month -> known.containsKey(month.getKey()))
                .map(month -> new UndoView.UndoneMonth(
                        known.get(month.getKey()).inWords(),
                        known.get(month.getKey()).locked(),
                        month.getValue()))
                .toList();
    }

    private static double place(Money amount, long most) {
        return most == 0 ? 0 : (double) amount.minor() / most;
    }

    /** What the accounts of these entries move in their months as the ledger stands. */
    private Map<Months.Spot, Money> moved(List<JournalEntry> writing, List<JournalEntry> undone) {
        Set<String> months = new HashSet<>();
        Set<Long> touched = new HashSet<>();
        for (List<JournalEntry> entries : List.of(writing, undone)) {
            for (JournalEntry entry : entries) {
                months.add(YearMonth.from(entry.ledgerDate()).toString());
                entry.lines().forEach(line -> touched.add(line.account().value()));
            }
        }
        Map<Months.Spot, Money> moved = new HashMap<>();
        jdbc.sql("""
                        SELECT e.month, l.account_id, l.currency, SUM(l.debit_minor) - SUM(l.credit_minor) AS net
                        FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id
                        WHERE e.month IN (:months) AND l.account_id IN (:accounts)
                        GROUP BY e.month, l.account_id, l.currency
                        """).param("months", months).param("accounts", touched).query((java.sql.ResultSet r) -> {
            String currency = r.getString("currency");
            moved.put(
                    new Months.Spot(
                            YearMonth.parse(r.getString("month")), new AccountId(r.getLong("account_id")), currency),
                    Money.ofMinor(r.getLong("net"), currency));
        });
        return moved;
    }
}
