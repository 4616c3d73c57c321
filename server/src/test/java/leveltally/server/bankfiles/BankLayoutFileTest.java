package leveltally.server.bankfiles;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Currency;
import java.util.List;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.LayoutCheck;
import leveltally.core.bankfiles.StandardBankLayouts;
import leveltally.core.money.Money;
import leveltally.server.App;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** Layouts out and in again, and as they were kept first. */
class BankLayoutFileTest {
    private static final JsonMapper JSON = App.bean(JsonMapper.class);

    @Test
    void whatIsWrittenIsRead() {
        for (Layout layout : StandardBankLayouts.all()) {
            assertThat(BankLayoutFile.read(BankLayoutFile.write(layout, JSON), JSON))
                    .isEqualTo(layout);
        }
    }

    @Test
    void theStandardOnesCanBeChosenEverywhere() {
        assertThat(App.bean(PositivePay.class).layouts())
                .extracting(PositivePay.LayoutChoice::name)
                .containsAll(
                        StandardBankLayouts.all().stream().map(Layout::name).toList());
    }

    /** The one every installation began with, before a layout could have records of several kinds. */
    @Test
    void whatWasKeptFirstSaysTheSame() {
        String kept = App.jdbc()
                .sql("SELECT definition FROM bank_file_layout WHERE name = 'Plain, 100 characters a check'")
                .query(String.class)
                .single();
        assertThat(kept).doesNotContain("format");
        Layout layout = BankLayoutFile.read(kept, JSON);
        assertThat(LayoutCheck.of(layout)).isEmpty();
        Currency usd = Currency.getInstance("USD");
        BankFile file = BankFile.of(
                layout,
                new BankFile.About("990044105", "0004417", usd, App.TODAY, 3),
                List.of(new BankFile.Item(
                        BankFile.Item.Kind.ISSUE,
                        41_237,
                        "41237",
                        Money.ofMinor(122_500, usd),
                        App.CHECK_DATE,
                        App.CHECK_DATE,
                        "Bollard Foundry")));
        assertThat(file.findings()).isEmpty();
        assertThat(file.texts().get(0))
                .hasSize(100)
                .startsWith("I990044105" + "00000000000004417" + "0000041237" + "000000000122500" + "20261113");
    }
}
