package leveltally.core.printing;

import java.util.ArrayList;
import java.util.List;

/** Numbers as people write them: {@code 41742-41760, 41763}. */
public final class Ranges {
    private Ranges() {}

    /** @param numbers rising, none twice */
    public static String inWords(List<Long> numbers) {
        List<String> parts = new ArrayList<>();
        int from = 0;
        for (int i = 1; i <= numbers.size(); i++) {
            if (i == numbers.size() || numbers.get(i) != numbers.get(i - 1) + 1) {
                long first = numbers.get(from);
                long last = numbers.get(i - 1);
                parts.add(first == last ? "" + first : first + "-" + last);
                from = i;
            }
        }
        return String.join(", ", parts);
    }
}
