package leveltally.core.marks;

import java.time.LocalDate;
import leveltally.core.money.Money;

/** A payment made earlier and not undone. */
public record PastPayment(String what, LocalDate checkDate, Money amount) {}
