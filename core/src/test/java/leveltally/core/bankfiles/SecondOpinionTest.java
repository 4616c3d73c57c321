package leveltally.core.bankfiles;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import leveltally.practicebank.OtherReader;
import leveltally.practicebank.ToldCheck;
import leveltally.practicebank.Unreadable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.json.JsonMapper;

/** What we write, read by somebody who knows only the description of the layout. */
class SecondOpinionTest {
    private static final JsonMapper JSON = new JsonMapper();

    private static String described(Layout layout) {
        Shape.Delimited by = layout.shape() instanceof Shape.Delimited delimited ? delimited : null;
        return JSON.writeValueAsString(Map.of(
                "name", layout.name(),
                "encoding", layout.encoding(),
                "lineEnd", layout.lineEnd(),
                "separator", by == null ? "" : String.valueOf(by.separator()),
                "quote", by == null ? "" : String.valueOf(by.quote()),
                "escape", by == null ? Shape.Escape.NONE : by.escape(),
                "records", layout.records()));
    }

    private static List<ToldCheck> read(Layout layout, byte[] content) throws Unreadable {
        return OtherReader.read(described(layout), RandomLayouts.ABOUT.accountNumber(), 2, content);
    }

    static Stream<Layout> standard() {
        return StandardBankLayouts.all().stream();
    }

    @ParameterizedTest
    @MethodSource("standard")
    void ourOwnLayoutsSayTheSame(Layout layout) throws Unreadable {
        for (int seed = 0; seed < 50; seed++) {
            same(layout, RandomLayouts.items(new Random(seed)), layout.name() + ", seed " + seed);
        }
    }

    @Test
    void randomOnesToo() throws Unreadable {
        int written = 0;
        for (int seed = 0; seed < 600; seed++) {
            Random random = new Random(seed);
            Layout layout = RandomLayouts.layout(random);
            if (LayoutCheck.of(layout).isEmpty() && same(layout, RandomLayouts.items(random), "seed " + seed)) {
                written++;
            }
        }
        assertThat(written).isGreaterThan(300);
    }

    private static boolean same(Layout layout, List<BankFile.Item> items, String which) throws Unreadable {
        BankFile file = BankFile.of(layout, RandomLayouts.ABOUT, items);
        if (!file.findings().isEmpty()) {
            return false;
        }
        List<ToldCheck> told = read(layout, file.bytes());
        assertThat(told).as(which).hasSameSizeAs(items);
        for (int i = 0; i < items.size(); i++) {
            BankFile.Item item = items.get(i);
            ToldCheck check = told.get(i);
            assertThat(check.issued()).as(which).isEqualTo(item.kind() == BankFile.Item.Kind.ISSUE);
            assertThat(check.number()).as(which).isEqualTo(item.number());
            assertThat(check.minor()).as(which).isEqualTo(item.amount().minor());
        }
        return true;
    }

    @ParameterizedTest
    @MethodSource("standard")
    void aFileThatWasCutOffIsNotTaken(Layout layout) {
        BankFile file = BankFile.of(layout, RandomLayouts.ABOUT, RandomLayouts.items(new Random(3)));
        if (layout.after() > 0) {
            byte[] cut = java.util.Arrays.copyOf(file.bytes(), file.bytes().length * 2 / 3);
            assertThatThrownBy(() -> read(layout, cut)).isInstanceOf(Unreadable.class);
        }
    }
}
