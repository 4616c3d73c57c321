package leveltally.core.imports;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.ledger.AccountId;
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
        public @Nullable AccountId account(String code) {
            return code.equals("5300") ? new AccountId(7) : null;
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

    @Test
    void readsAnInvoice() {
        assertThat(InvoiceRow.read(invoice(), KNOWN).row())
                .isEqualTo(new InvoiceRow(
                        "V1",
                        "BF-1",
                        false,
                        day("2026-11-03"),
                        day("2026-11-03"),
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
        "amount, -5, must be above zero",
        "amount, 1.234, more decimals than USD",
        "amount, ten, is not an amount",
        "account, 9999, there is no ledger account 9999",
        "not_discountable, -1, cannot be below zero",
        "own_check, maybe, none of no, yes"
    })
    void refusesWithColumnAndReason(String column, String cell, String reason) {
        Map<String, String> cells = invoice();
        cells.put(column, cell);
        InvoiceRow.Read read = InvoiceRow.read(cells, KNOWN);
        assertThat(read.row()).isNull();
        assertThat(read.findings()).singleElement().satisfies(finding -> {
            assertThat(finding.column()).isEqualTo(column);
            assertThat(finding.reason()).contains(reason);
        });
    }

    @Test
    void saysEverythingThatIsWrongAtOnce() {
        assertThat(InvoiceRow.read(Map.of("vendor", "V9"), KNOWN).findings()).hasSize(5);
    }

    @Test
    void readsAVendor() {
        VendorRow row = VendorRow.read(Map.of(
                        "number", "V2001",
                        "name", "Samphire Rope Store",
                        "currency", "usd",
                        "terms", "2% 10, net 30",
                        "address", "7 Slipway Road; Skerrow 4711"))
                .row();
        assertThat(row).isNotNull();
        assertThat(row.terms()).isEqualTo(Terms.net(30).withDiscount("2", 10));
        assertThat(row.remitTo().lines()).containsExactly("7 Slipway Road", "Skerrow 4711");
        assertThat(row.priority()).isEqualTo(5);
        assertThat(VendorRow.read(Map.of("number", "V1", "priority", "0", "currency", "XYZ1", "terms", "soon"))
                        .findings())
                .extracting(Finding::column)
                .containsExactly("name", "priority", "currency", "terms", "address");
    }

    @Test
    void aVendorsNumberHasNoSpacesAndOneCase() {
        assertThat(VendorRow.read(Map.of(
                                "number", "V 1", "name", "x", "currency", "USD", "terms", "net 30", "address", "y"))
                        .findings())
                .extracting(Finding::column)
                .containsExactly("number");
        VendorRow small = VendorRow.read(
                        Map.of("number", "v1", "name", "x", "currency", "USD", "terms", "net 30", "address", "y"))
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
