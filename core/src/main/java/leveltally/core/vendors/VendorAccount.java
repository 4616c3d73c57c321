package leveltally.core.vendors;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.money.Money;

/** A vendor's account in time order, with what was owed after each movement; each currency for itself. */
public record VendorAccount(List<Row> rows) {

    /**
     * One movement.
     *
     * @param entry the entry number of the invoice or credit it belongs to
     * @param amount above zero raises what is owed, below zero lowers it
     */
    public record Movement(LocalDate date, long entry, String words, String reference, Money amount) {}

    /** A movement and the balance after it. */
    public record Row(Movement movement, Money balance) {}

    /** @param movements in time order */
    public static VendorAccount of(List<Movement> movements) {
        Map<String, Money> balances = new HashMap<>();
        List<Row> rows = new ArrayList<>(movements.size());
        for (Movement movement : movements) {
            String currency = movement.amount().currency().getCurrencyCode();
            rows.add(new Row(movement, balances.merge(currency, movement.amount(), Money::plus)));
        }
        return new VendorAccount(List.copyOf(rows));
    }
}
