package leveltally.server.ledger;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.BankingDays;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The days, besides weekends, on which the bank of an account does not work. */
@Service
public class BankHolidays {
    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final AuditTrail audit;

    BankHolidays(JdbcClient jdbc, BankAccounts accounts, AuditTrail audit) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.audit = audit;
    }

    /** Adds days on which the bank does not work; a day there already gets the new name. */
    @Transactional
    public void add(Actor by, BankAccountId id, Map<LocalDate, String> days) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        accounts.lock(id);
        days.forEach((day, name) -> {
            delete(id, day);
            jdbc.sql("INSERT INTO bank_holiday (bank_account_id, day, name) VALUES (:account, :day, :name)")
                    .param("account", id.value())
                    .param("day", day)
                    .param("name", name)
                    .update();
        });
        audit.record(
                by,
                "add holidays",
                "bank account " + id.value(),
                Map.of(
                        "days",
                        days.keySet().stream().map(Dates::inWords).toList().toString()));
    }

    @Transactional
    public void remove(Actor by, BankAccountId id, LocalDate day) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        accounts.lock(id);
        if (delete(id, day) == 0) {
            throw Refusal.conflict("no-holiday", Dates.inWords(day) + " is not on the list any more. Look again.");
        }
        audit.record(by, "remove holiday", "bank account " + id.value(), Map.of("day", Dates.inWords(day)));
    }

    private int delete(BankAccountId id, LocalDate day) {
        return jdbc.sql("DELETE FROM bank_holiday WHERE bank_account_id = :account AND day = :day")
                .param("account", id.value())
                .param("day", day)
                .update();
    }

    /** A day on which the bank does not work. */
    public record Holiday(LocalDate day, String name) {}

    /** The days on which the bank of an account works. */
    @Transactional(readOnly = true)
    public BankingDays of(BankAccountId id) {
        return new BankingDays(
                from(id, LocalDate.EPOCH).stream().map(Holiday::day).collect(Collectors.toSet()));
    }

    /** The holidays kept of an account, from a day on. */
    @Transactional(readOnly = true)
    public List<Holiday> from(BankAccountId id, LocalDate from) {
        return jdbc.sql(
                        "SELECT day, name FROM bank_holiday WHERE bank_account_id = :account AND day >= :from ORDER BY day")
                .param("account", id.value())
                .param("from", from)
                .query(Holiday.class)
                .list();
    }
}
