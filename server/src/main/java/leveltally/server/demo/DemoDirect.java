package leveltally.server.demo;

import java.time.LocalDate;
import java.util.Currency;
import leveltally.core.direct.Rhythm;
import leveltally.core.direct.Schedule;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.vendors.VendorId;
import leveltally.server.direct.Schedules;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What the ferries pay again and again: the lease of the ticket hall, berth dues, the linen service of the cabins. */
@Component
class DemoDirect {
    private final Schedules schedules;
    private final JdbcClient jdbc;

    DemoDirect(Schedules schedules, JdbcClient jdbc) {
        this.schedules = schedules;
        this.jdbc = jdbc;
    }

    void make(Actor clerk) {
        long hall = begin(
                clerk,
                "Ticket hall lease",
                "Skerrow Harbour Authority",
                "HALL {month}",
                "5400 1,500.00; 5500 350.00",
                "1850.00",
                Rhythm.MONTHLY,
                "2026-10-15",
                null);
        schedules.passOver(clerk, hall, LocalDate.parse("2026-10-15"), "paid with the deposit, by agreement");
        begin(
                clerk,
                "Berth dues, winter berth",
                "Skerrow Harbour Authority",
                "BERTH {month}",
                "5500",
                "2412.00",
                Rhythm.QUARTERLY,
                "2026-11-10",
                "2027-05-31");
        begin(
                clerk,
                "Cabin linen, flat rate",
                "Ebb Tide Linen",
                "LINEN {month}",
                "5400",
                "310.00",
                Rhythm.TWO_WEEKS,
                "2026-11-13",
                null);
    }

    private long begin(
            Actor clerk,
            String name,
            String vendor,
            String reference,
            String said,
            String amount,
            Rhythm rhythm,
            String first,
            @Nullable String until) {
        long account = id("SELECT id FROM bank_account WHERE name = ?", "Operations");
        return schedules.begin(
                clerk,
                new Schedules.Wanted(
                        new BankAccountId(account),
                        new WayId(id(
                                "SELECT id FROM way_to_pay WHERE method = 'CHECK' AND NOT recorded_only AND bank_account_id = ?",
                                account)),
                        new VendorId(id("SELECT id FROM vendor WHERE name = ?", vendor)),
                        new Schedule(
                                name,
                                reference,
                                said,
                                Money.parse(amount, Currency.getInstance("USD")),
                                rhythm,
                                LocalDate.parse(first),
                                until == null ? null : LocalDate.parse(until))));
    }

    private long id(String sql, Object param) {
        return jdbc.sql(sql).param(param).query(Long.class).single();
    }
}
