package leveltally.server.bankfiles;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.money.Money;

/** From a row with what an event tells to what a layout writes. */
final class EventItem {
    private EventItem() {}

    static BankFile.Item of(ResultSet r) throws SQLException {
        return new BankFile.Item(
                BankFile.Item.Kind.valueOf(r.getString("kind")),
                r.getLong("number"),
                r.getString("printed"),
                Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                r.getObject("check_date", LocalDate.class),
                r.getObject("event_date", LocalDate.class),
                r.getString("payee"));
    }
}
