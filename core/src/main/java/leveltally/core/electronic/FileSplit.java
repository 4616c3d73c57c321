package leveltally.core.electronic;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/** Payments laid into files, none larger than the bank takes. */
public final class FileSplit {
    private FileSplit() {}

    /**
     * In their order, each file as full as it goes.
     *
     * @param amounts none larger than the limit
     * @param limit of a file; null for any
     * @param splits whether what is over the limit goes into several; it is refused otherwise
     * @return how many payments each file takes
     * @throws Refusal when they are too much for one file and may not go into several
     */
    public static List<Integer> of(List<Money> amounts, @Nullable Money limit, boolean splits) {
        List<Integer> files = new ArrayList<>();
        Money sum = null;
        int count = 0;
        for (Money amount : amounts) {
            Money with = sum == null ? amount : sum.plus(amount);
            if (limit != null && with.compareTo(limit) > 0 && count > 0) {
                files.add(count);
                with = amount;
                count = 0;
            }
            sum = with;
            count++;
        }
        if (count > 0) {
            files.add(count);
        }
        if (files.size() > 1 && !splits) {
            throw Refusal.conflict(
                    "file-too-large",
                    "Together these are more than the " + limit
                            + " the bank takes in one file. Choose some of them for a first"
                            + " file, or have an administrator let such a batch go into several.");
        }
        return files;
    }
}
