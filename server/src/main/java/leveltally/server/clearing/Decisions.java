package leveltally.server.clearing;

import java.sql.Timestamp;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.clearing.DecisionHour;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.server.company.BusinessDay;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.BankHolidays;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Pay or return, said before the bank's hour, by whom. */
@Component
class Decisions {
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);

    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final BankHolidays holidays;
    private final BusinessDay day;

    Decisions(JdbcClient jdbc, BankAccounts accounts, BankHolidays holidays, BusinessDay day) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.holidays = holidays;
        this.day = day;
    }

    /** The hour of an account; empty where its bank asks for nothing. */
    Optional<DecisionHour> hour(BankAccountId account) {
        return accounts.decisionHour(account).map(hour -> new DecisionHour(hour, day.zone(), holidays.of(account)));
    }

    /** @throws Refusal when it is to be returned and the bank's hour has passed */
    void decide(Actor by, BankAccount account, MovementRows.Told one, boolean pays) {
        Optional<Instant> until = hour(account.id()).map(hour -> hour.of(one.readAt()));
        if (!pays && until.isPresent() && by.now().isAfter(until.get())) {
            var passed = until.get().atZone(day.zone());
            throw Refusal.conflict(
                    "hour-passed",
                    "The bank's hour to return it passed on " + Dates.inWords(passed.toLocalDate()) + " at "
                            + CLOCK.format(passed) + ", so it paid. Answer that it is the bank's error, or that it is"
                            + " right.");
        }
        jdbc.sql("INSERT INTO bank_decision (movement_id, pays, decided_at, decided_by) VALUES (?, ?, ?, ?)"
                        + " ON DUPLICATE KEY UPDATE file_id = NULL, pays = VALUES(pays), decided_at = VALUES(decided_at),"
                        + " decided_by = VALUES(decided_by)")
                .params(one.id(), pays, Timestamp.from(by.now()), by.person().value())
                .update();
    }
}
