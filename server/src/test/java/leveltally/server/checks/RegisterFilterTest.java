package leveltally.server.checks;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Currency;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import leveltally.server.App;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whichever word leads, or none: the same numbers are found. */
class RegisterFilterTest {
    private static final Currency USD = Currency.getInstance("USD");
    private static final long MANY = RegisterFilter.MOST_LED + 1L;

    private static RegisterAsked asked(String text) {
        return new RegisterAsked(null, null, text, null, null, null, null, null, null, null);
    }

    /** @param lead the word that seems to be held by the fewest; none for -1 */
    private static Set<Long> found(String text, int lead) {
        RegisterFilter filter = RegisterFilter.of(
                asked(text),
                USD,
                App.TODAY,
                words -> IntStream.range(0, words.size())
                        .mapToObj(i -> i == lead ? 0L : MANY)
                        .toList());
        return new TreeSet<>(App.jdbc()
                .sql("SELECT n.id FROM " + filter.from() + filter.where())
                .params(filter.params())
                .query(Long.class)
                .list());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "rigging",
                "41",
                "1,250.00",
                "H-7",
                "run",
                "pelorus charts",
                "rigging 41",
                "run 4 dock",
                "blackwater 100",
                "%_ 12",
                "nothing-holds-that 41"
            })
    void whicheverLeads(String text) {
        int words = text.split(" ").length;
        Set<Long> throughAll = found(text, -1);
        for (int lead = 0; lead < words; lead++) {
            assertThat(found(text, lead)).as("%s, led by word %d", text, lead).isEqualTo(throughAll);
        }
    }
}
