package leveltally.core.bankfiles;

import java.util.Collection;
import java.util.Currency;
import leveltally.core.money.Money;

/**
 * What the events of a file come to, issues and voids apart; of decisions what is paid and what is returned.
 *
 * @param issueHash the numbers of the issued checks added up, {@code voidHash} those of the voided ones
 */
public record Sums(int issues, int voids, Money issued, Money voided, long issueHash, long voidHash) {
    public static Sums none(Currency currency) {
        Money none = Money.zero(currency);
        return new Sums(0, 0, none, none, 0, 0);
    }

    public static Sums of(Collection<BankFile.Item> items, Currency currency) {
        Sums sums = none(currency);
        for (BankFile.Item item : items) {
            sums = sums.with(item);
        }
        return sums;
    }

    /** The same with one more. */
    public Sums with(BankFile.Item item) {
        return item.kind().stands()
                ? new Sums(
                        issues + 1,
                        voids,
                        issued.plus(item.amount()),
                        voided,
                        Math.addExact(issueHash, item.number()),
                        voidHash)
                : new Sums(
                        issues,
                        voids + 1,
                        issued,
                        voided.plus(item.amount()),
                        issueHash,
                        Math.addExact(voidHash, item.number()));
    }

    int count() {
        return issues + voids;
    }
}
