package leveltally.core.imports;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Collections;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import leveltally.core.ledger.AccountFacts;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.money.DecimalMark;
import leveltally.core.money.Money;
import leveltally.core.terms.Terms;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RowsTest {
    private static final InvoiceRow.Known KNOWN = new InvoiceRow.Known() {
        @Override
        public @Nullable Currency vendor(String number) {
            return number.equals("V1") ? USD : null;
        }

        @Override
        public boolean paysIn(Currency currency) {
            return !currency.getCurrencyCode().equals("CHF");
        }

        @Override
        public @Nullable LedgerAccount account(String code) {
            return switch (code) {
                case "5300" -> account(code, null);
                case "5400" -> account(code, LocalDate.of(2026, 3, 1));
                default -> null;
            };
        }

        private LedgerAccount account(String code, @Nullable LocalDate closedFrom) {
            return new LedgerAccount(
                    new AccountId(7), new AccountFacts(code, "Galley", AccountKind.EXPENSE), closedFrom);
        }

        @Override
        public boolean open(LocalDate ledgerDate) {
            return ledgerDate.getYear() == 2026;
        }
    };

    private static Map<String, String> invoice() {
        return new HashMap<>(Map.of(
                "vendor",
                "V1",
                "reference",
                "BF-1",
                "invoice_date",
                "2026-11-03",
                "amount",
                "1,250.00",
                "account",
                "5300"));
    }

    /** A vendor may be owed in several, whatever it is paid in as a rule. */
    @Test
    void aDocumentMayBeInAnotherCurrency() {
        Map<String, String> euro = invoice();
        euro.put("currency", "eur");
        assertThat(InvoiceRow.read(euro, KNOWN, Reading.PLAIN).row().amount())
                .isEqualTo(Money.parse("1250.00", Currency.getInstance("EUR")));
        InvoiceRow first = InvoiceRow.read(invoice(), KNOWN, Reading.PLAIN).row();
        InvoiceRow second = InvoiceRow.read(euro, KNOWN, Reading.PLAIN).row();
        assertThat(InvoiceDocument.of(List.of(first, second)).finding().column())
                .isEqualTo("currency");
    }

    @Test
    void readsAnInvoice() {
        assertThat(InvoiceRow.read(invoice(), KNOWN, Reading.PLAIN).row())
                .isEqualTo(new InvoiceRow(
                        "V1",
                        "BF-1",
                        false,
                        day("2026-11-03"),
                        day("2026-11-03"),
                        null,
                        null,
                        usd("1250"),
                        new AccountId(7),
                        "",
                        usd("0"),
                        false,
                        null));
    }

    @ParameterizedTest
    @CsvSource({
        "vendor, V2, there is no vendor V2",
        "vendor, '', is empty",
        "reference, '=1+1', a spreadsheet would take it for a formula",
        "reference, '12345678901234567890123456789012345678901', at most 40 fit",
        "kind, debit, none of invoice, credit",
        "invoice_date, 03.11.2026, is no day such as",
        "invoice_date, 2026-02-30, is no day such as",
        "ledger_date, 2025-12-31, locked or not there",
        "amount, '1250,00', is not an amount",
        "amount, '1,234,5.00', is not an amount",
        "amount, '100,000,000,000.00', the most one amount can be",
        "terms, soon, are no terms such as",
        "due_date, 2026-11-01, lies before the invoice date",
        "currency, CHF, 'the company has no bank account in CHF'",
        "currency, XXQ, 'the company has no bank account in XXQ'",
        "usable_from, 2026-12-01, belongs to credits only",
        "amount, 1.234, more decimals than USD",
        "amount, ten, is not an amount",
        "account, 9999, there is no ledger account 9999",
        "not_discountable, -1, cannot be below zero",
        "own_check, maybe, none of no, yes"
    })
    void refusesWithColumnAndReason(String column, String cell, String reason) {
        Map<String, String> cells = invoice();
        cells.put(column, cell);
        InvoiceRow.Read read = InvoiceRow.read(cells, KNOWN, Reading.PLAIN);
        assertThat(read.row()).isNull();
        assertThat(read.findings()).singleElement().satisfies(finding -> {
            assertThat(finding.column()).isEqualTo(column);
            assertThat(finding.reason()).contains(reason);
        });
    }

    @Test
    void saysEverythingThatIsWrongAtOnce() {
        assertThat(InvoiceRow.read(Map.of("vendor", "V9"), KNOWN, Reading.PLAIN).findings())
                .hasSize(5);
    }

    /** What somebody chose for the whole file stands in where a document lacks it, and nowhere else. */
    @Test
    void aChoiceForTheWholeFileFillsWhatIsMissing() {
        Reading chosen = new Reading(DecimalMark.COMMA, day("2026-11-12"), "5300");
        Map<String, String> cells = invoice();
        cells.put("amount", "1.250,00");
        cells.put("account", "9999");
        cells.put("invoice_date", "2025-12-30");
        cells.put("terms", "2% 10, net 30");
        cells.put("due_date", "2026-01-20");
        InvoiceRow row = InvoiceRow.read(cells, KNOWN, chosen).row();
        assertThat(row).isNotNull();
        assertThat(row.amount()).isEqualTo(usd("1250"));
        assertThat(row.account()).isEqualTo(new AccountId(7));
        assertThat(row.ledgerDate()).isEqualTo(day("2026-11-12"));
        assertThat(row.terms()).isEqualTo(Terms.net(30).withDiscount("2", 10));
        assertThat(row.dueDate()).isEqualTo(day("2026-01-20"));
    }

    private static InvoiceRow row(String column, String cell) {
        Map<String, String> cells = invoice();
        cells.put(column, cell);
        return Objects.requireNonNull(
                InvoiceRow.read(cells, KNOWN, Reading.PLAIN).row());
    }

    @Test
    void aDocumentIsAllItsRows() {
        InvoiceDocument whole = InvoiceDocument.of(List.of(
                        row("amount", "100.00"),
                        row("amount", "-30.00"),
                        row("not_discountable", "20.00"),
                        row("own_check", "yes")))
                .document();
        assertThat(whole).isNotNull();
        assertThat(whole.rows()).hasSize(4);
        assertThat(whole.notDiscountable()).isEqualTo(usd("20"));
        assertThat(whole.ownCheck()).isTrue();
    }

    @Test
    void rejectsADocumentThatIsNone() {
        assertThat(InvoiceDocument.of(List.of(row("amount", "30.00"), row("amount", "-30.00")))
                        .finding())
                .isNotNull()
                .satisfies(finding -> assertThat(finding.reason()).contains("come to 0.00"));
        assertThat(InvoiceDocument.of(List.of(row("job", "a"), row("ledger_date", "2026-11-04")))
                        .finding())
                .isNotNull()
                .satisfies(finding -> assertThat(finding.column()).isEqualTo("ledger_date"));
        assertThat(InvoiceDocument.of(List.of(row("not_discountable", "1250.01")))
                        .finding())
                .isNotNull()
                .satisfies(finding -> assertThat(finding.column()).isEqualTo("not_discountable"));
        assertThat(InvoiceDocument.of(Collections.nCopies(10_001, row("amount", "1.00")))
                        .finding())
                .isNotNull()
                .satisfies(finding -> assertThat(finding.reason()).contains("10,000 lines"));
    }

    @Test
    void readsAVendor() {
        VendorRow row = VendorRow.read(
                        Map.of(
                                "number", "V2001",
                                "name", "Samphire Rope Store",
                                "currency", "usd",
                                "terms", "2% 10, net 30",
                                "address", "7 Slipway Road; Skerrow 4711"),
                        Set.of(USD))
                .row();
        assertThat(row).isNotNull();
        assertThat(row.terms()).isEqualTo(Terms.net(30).withDiscount("2", 10));
        assertThat(row.remitTo().lines()).containsExactly("7 Slipway Road", "Skerrow 4711");
        assertThat(row.priority()).isEqualTo(5);
        assertThat(VendorRow.read(
                                Map.of("number", "V1", "priority", "0", "currency", "XAU", "terms", "soon"),
                                Set.of(USD))
                        .findings())
                .extracting(Finding::column)
                .containsExactly("name", "priority", "currency", "terms", "address");
    }

    @Test
    void aVendorsNumberHasNoSpacesAndOneCase() {
        assertThat(VendorRow.read(
                                Map.of(
                                        "number",
                                        "V 1",
                                        "name",
                                        "x",
                                        "currency",
                                        "USD",
                                        "terms",
                                        "net 30",
                                        "address",
                                        "y"),
                                Set.of(USD))
                        .findings())
                .extracting(Finding::column)
                .containsExactly("number");
        VendorRow small = VendorRow.read(
                        Map.of("number", "v1", "name", "x", "currency", "USD", "terms", "net 30", "address", "y"),
                        Set.of(USD))
                .row();
        assertThat(small).isNotNull();
        assertThat(small.identity()).isEqualTo("vendor v1");
    }

    @Test
    void mapsByHeaderNameOrByChoice() {
        List<String> headers = List.of("Vendor", "Their Number", "Invoice Date", "Amount", "Account");
        Mapping mapping = Mapping.of(Column.INVOICES, headers, Map.of());
        assertThat(mapping.missing()).containsExactly("reference");
        Mapping chosen = Mapping.of(Column.INVOICES, headers, Map.of("reference", "Their Number"));
        assertThat(chosen.missing()).isEmpty();
        assertThat(chosen.cells(List.of("V1", " R-1 ", "2026-11-03")))
                .containsEntry("reference", "R-1")
                .containsEntry("amount", "");
    }
}
