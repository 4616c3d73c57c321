package leveltally.server.imports;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Documents of the standard as they come: what they come to, who sends them, and what has no place in them. */
class UblDocumentTest {
    private static final String HEAD = """
            <?xml version="1.0" encoding="UTF-8"?>
            <n1:Invoice xmlns:n1="urn:oasis:names:specification:ubl:schema:xsd:Invoice-2"
              xmlns:a="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2"
              xmlns:b="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2"
              xmlns:e="urn:oasis:names:specification:ubl:schema:xsd:CommonExtensionComponents-2"
              xmlns:ds="http://www.w3.org/2000/09/xmldsig#">
            <e:UBLExtensions><e:UBLExtension><e:ExtensionContent><ds:Signature><ds:SignedInfo/>
              <b:ID>not ours</b:ID><a:InvoiceLine><b:LineExtensionAmount>9</b:LineExtensionAmount></a:InvoiceLine>
              </ds:Signature></e:ExtensionContent></e:UBLExtension></e:UBLExtensions>
            <b:ID>TOSL-108</b:ID><b:IssueDate>2026-11-02</b:IssueDate><b:DueDate>2026-12-02</b:DueDate>
            <b:DocumentCurrencyCode>USD</b:DocumentCurrencyCode><b:TaxCurrencyCode>EUR</b:TaxCurrencyCode>
            <a:AccountingSupplierParty><a:Party><b:EndpointID schemeID="0088">1238764941386</b:EndpointID>
              <a:PartyIdentification><b:ID schemeID="ZZZ">Supp123</b:ID></a:PartyIdentification>
              <a:PartyName><b:Name>Salescompany of Skerrow</b:Name></a:PartyName>
              <a:PartyTaxScheme><b:CompanyID>DK12345</b:CompanyID></a:PartyTaxScheme></a:Party></a:AccountingSupplierParty>
            <a:PaymentMeans><a:PayeeFinancialAccount><b:ID>DK1212341234123412</b:ID></a:PayeeFinancialAccount></a:PaymentMeans>
            """;
    private static final String TOTALS = """
            <a:AllowanceCharge><b:ChargeIndicator>false</b:ChargeIndicator><b:Amount>100</b:Amount></a:AllowanceCharge>
            <a:AllowanceCharge><b:ChargeIndicator>true</b:ChargeIndicator><b:Amount>100.00</b:Amount></a:AllowanceCharge>
            <a:TaxTotal><b:TaxAmount currencyID="USD">292.20</b:TaxAmount><a:TaxSubtotal>
              <b:TaxAmount currencyID="USD">280.00</b:TaxAmount></a:TaxSubtotal><a:TaxSubtotal>
              <b:TaxAmount currencyID="USD">12.20</b:TaxAmount></a:TaxSubtotal></a:TaxTotal>
            <a:TaxTotal><b:TaxAmount currencyID="EUR">270.00</b:TaxAmount></a:TaxTotal>
            <a:LegalMonetaryTotal><b:PrepaidAmount>1000.00</b:PrepaidAmount>
              <b:PayableRoundingAmount>0.30</b:PayableRoundingAmount>
              <b:PayableAmount currencyID="USD">%s</b:PayableAmount></a:LegalMonetaryTotal>
            """;
    private static final String LINES = """
            <a:InvoiceLine><b:LineExtensionAmount>1440.000</b:LineExtensionAmount>
              <a:AllowanceCharge><b:ChargeIndicator>true</b:ChargeIndicator><b:Amount>12.00</b:Amount></a:AllowanceCharge>
              <b:AccountingCost>5300</b:AccountingCost></a:InvoiceLine>
            <a:InvoiceLine><b:LineExtensionAmount>-3.50</b:LineExtensionAmount></a:InvoiceLine></n1:Invoice>
            """;

    private static UblDocument read(String payable) {
        return read(HEAD, payable, LINES);
    }

    private static UblDocument read(String head, String payable, String lines) {
        String text = head.strip() + TOTALS.formatted(payable) + lines;
        return UblDocument.read(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
    }

    private static List<Map<String, String>> rows(UblDocument document) {
        return document.rows("V7", named -> named.isEmpty() ? "5200" : named);
    }

    @Test
    void theRowsComeToThePayableAmount() {
        assertThat(rows(read("729.00")))
                .extracting(row -> row.get("amount") + " " + row.get("account"))
                .containsExactly(
                        "1440.00 5300",
                        "-3.50 5200",
                        "-100.00 5200",
                        "100.00 5200",
                        "292.20 5200",
                        "-1000.00 5200",
                        "0.30 5200");
        assertThat(rows(read("729.00")))
                .allSatisfy(row -> assertThat(row)
                        .containsEntry("vendor", "V7")
                        .containsEntry("reference", "TOSL-108")
                        .containsEntry("due_date", "2026-12-02")
                        .containsEntry("currency", "USD"));
    }

    @Test
    void rejectsAPayableAmountThatDoesNotFollowNamingBothFigures() {
        assertThatThrownBy(() -> rows(read("729.01")))
                .isInstanceOf(Unreadable.class)
                .hasMessageContaining("it says 729.01")
                .hasMessageContaining("to 729.00");
    }

    @Test
    void aSenderIsKnownByAllItCallsItselfTheStrongestFirst() {
        UblParty party = read("729.00").party();
        assertThat(party.name()).isEqualTo("Salescompany of Skerrow");
        assertThat(party.identifiers())
                .extracting(one -> one.scheme() + "=" + one.value())
                .containsExactly(
                        "endpoint 0088=1238764941386",
                        "tax=DK12345",
                        "identification ZZZ=SUPP123",
                        "account=DK1212341234123412",
                        "name=SALESCOMPANY OF SKERROW");
    }

    @ParameterizedTest
    @CsvSource(
            value = {
                "<b:Note>2% 10, net 30</b:Note>| 2% 10, net 30",
                "<b:Note>Please pay soon</b:Note>| ''",
                "<b:SettlementDiscountPercent>2</b:SettlementDiscountPercent><a:SettlementPeriod>"
                        + "<b:EndDate>2026-11-12</b:EndDate></a:SettlementPeriod>| 2% 10, net 30"
            },
            delimiter = '|')
    void termsAreTheDocumentsOwnWhereTheyCanBeSaid(String terms, String words) {
        UblDocument document = read(HEAD + "<a:PaymentTerms>" + terms + "</a:PaymentTerms>", "729.00", LINES);
        assertThat(rows(document).get(0).get("terms")).isEqualTo(words);
    }

    @ParameterizedTest
    @CsvSource({"1E400000000", "0x10", "'1,440.00'", "''", "NaN"})
    void rejectsWhatIsNoPlainDecimal(String amount) {
        String lines = LINES.replace("1440.000", amount);
        assertThatThrownBy(() -> rows(read(HEAD, "729.00", lines)))
                .isInstanceOf(Unreadable.class)
                .hasMessageContaining("is no amount");
    }
}
