package leveltally.server.bankfiles;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import leveltally.core.Refusal;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.StandardBankLayouts;
import leveltally.server.App;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.json.JsonMapper;

/** Layouts as administrators change them: tried on what waits, refused with the line, kept in versions. */
class BankLayoutsTest {
    private static final BankLayouts LAYOUTS = App.bean(BankLayouts.class);
    private static final String TYPED =
            BankLayoutFile.typed(StandardBankLayouts.semicolonsWithTotals(), App.bean(JsonMapper.class));

    @Test
    void whatIsTypedIsTriedOnWhatWaits() {
        Layout layout = LAYOUTS.read(TYPED);
        BankFiles.Draft draft = App.bean(BankFiles.class).tried(App.operations(), layout, App.TODAY);
        assertThat(draft.shown()).isNotEmpty();
        assertThat(draft.file().findings()).isEmpty();
        assertThat(draft.file().texts().get(0)).startsWith("00;");
        assertThat(draft.file().texts()).hasSize(draft.shown().size() + 2);
    }

    /** A layout that cuts the account number to its beginning shows no more of it than any other. */
    @Test
    void whateverALayoutMakesOfTheAccountNumberIsMasked() {
        String number = App.bean(leveltally.server.ledger.BankAccounts.class)
                .get(App.operations())
                .accountNumber();
        String cutting = TYPED.replace("\"ROUTING_NUMBER\"", "\"ACCOUNT_NUMBER\"")
                .replaceFirst("\"width\" : 0", "\"width\" : 6")
                .replaceFirst("\"cut\" : false", "\"cut\" : true");
        BankFiles.Draft draft = App.bean(BankFiles.class).tried(App.operations(), LAYOUTS.read(cutting), App.TODAY);
        assertThat(draft.file().texts().toString()).doesNotContain(number.substring(0, 6));
        assertThat(draft.about().accountNumber()).endsWith(number.substring(number.length() - 4));
    }

    @ParameterizedTest(name = "{0} for {1}: {2}")
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            "DETAIL"                        | "BODY"       | “place”
            "separator" : ";"               | "separator" : ";;" | one character each
            "encoding" : "windows-1252",    | ``           | encoding
            "fill" : " "                    | "fill" : null | fill
            level-tally bank layout 1       | another one  | its format is not
            "records" : [                   | "records" :  | line
            "place"                         | "plaice"     | “place” is missing
            """)
    void whatCannotBeReadIsRefusedInASentence(String part, String other, String words) {
        assertThat(TYPED).contains(part);
        assertThatThrownBy(() -> LAYOUTS.read(TYPED.replaceFirst(java.util.regex.Pattern.quote(part), other)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("no layout of a bank's file")
                .hasMessageContaining(words);
    }

    @Test
    void whatIsKeptIsTheNextVersionAndWhatIsWrongIsNot() {
        String name = "Semicolons, issues and voids apart, totals";
        assertThatThrownBy(() -> LAYOUTS.keep(
                        App.actor("joss", leveltally.core.people.Role.ADMINISTRATOR),
                        TYPED.replace("\"VOIDS\"", "\"ISSUES\"")))
                .hasMessageContaining("No detail tells of a void");
        assertThatThrownBy(() -> LAYOUTS.keep(App.ines(), TYPED)).isInstanceOf(Refusal.class);
        BankLayouts.BankLayoutVersion kept =
                LAYOUTS.keep(App.actor("joss", leveltally.core.people.Role.ADMINISTRATOR), TYPED);
        assertThat(kept.name()).isEqualTo(name);
        assertThat(kept.version()).isEqualTo(2);
        assertThat(LAYOUTS.all())
                .filteredOn(one -> one.name().equals(name))
                .extracting(BankLayouts.BankLayoutVersion::version, BankLayouts.BankLayoutVersion::newest)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(2, true), org.assertj.core.groups.Tuple.tuple(1, false));
        assertThat(LAYOUTS.read(LAYOUTS.text(kept.id()))).isEqualTo(LAYOUTS.read(TYPED));
    }

    /** A test file is marked, takes no serial number and tells nobody anything. */
    @Test
    void aTestFileCountsNowhere() {
        var joss = App.actor("joss", leveltally.core.people.Role.ADMINISTRATOR);
        long before = App.number("SELECT COUNT(*) FROM bank_file");
        long serial = App.number(
                "SELECT next_file_serial FROM bank_account WHERE id = ?",
                App.operations().value());
        BankFiles.Content made = App.bean(BankFiles.class).test(joss, App.operations(), LAYOUTS.whole(TYPED));
        assertThat(made.name()).startsWith("TEST-");
        assertThat(new String(made.bytes(), java.nio.charset.Charset.forName("windows-1252")))
                .startsWith("00;");
        assertThat(App.number("SELECT COUNT(*) FROM bank_file")).isEqualTo(before);
        assertThat(App.number(
                        "SELECT next_file_serial FROM bank_account WHERE id = ?",
                        App.operations().value()))
                .isEqualTo(serial);
        assertThatThrownBy(() -> App.bean(BankFiles.class).test(App.ines(), App.operations(), LAYOUTS.whole(TYPED)))
                .isInstanceOf(Refusal.class);
    }

    /** From a day on files are made in another layout, not before. */
    @Test
    void aLayoutIsInForceFromADay() {
        var joss = App.actor("joss", leveltally.core.people.Role.ADMINISTRATOR);
        PositivePay positivePay = App.bean(PositivePay.class);
        var accounts = App.bean(leveltally.server.ledger.BankAccounts.class);
        long now = accounts.get(App.operations()).layout().on(App.TODAY);
        long next = positivePay.layouts().stream()
                .filter(one -> one.id() != now)
                .findFirst()
                .orElseThrow()
                .id();
        var from = App.TODAY.plusDays(3);
        positivePay.begin(joss, App.operations(), next, from);
        try {
            var account = accounts.get(App.operations());
            assertThat(account.layout().on(from.minusDays(1))).isEqualTo(now);
            assertThat(account.layout().on(from)).isEqualTo(next);
            assertThat(positivePay.inWords(account, App.TODAY)).contains("; from Sun 15 Nov 2026 ");
            assertThat(positivePay.inWords(account, from)).doesNotContain("; from");
            BankFiles files = App.bean(BankFiles.class);
            assertThat(files.preview(App.operations(), App.TODAY, Narrowed.NOT)
                            .layout()
                            .name())
                    .isNotEqualTo(files.preview(App.operations(), from, Narrowed.NOT)
                            .layout()
                            .name());
        } finally {
            positivePay.begin(joss, App.operations(), now);
        }
        assertThat(accounts.get(App.operations()).layout().on(from)).isEqualTo(now);
    }
}
