package leveltally.practicebank;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.StringReader;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.junit.jupiter.api.Test;
import org.xml.sax.SAXException;

/**
 * Statements of the bank held against the published schema. That of camt.053 lies in no package of a registry; that of camt.052,
 * of the same version, has the same account, balances and entries under two other names.
 */
class PublishedSchemaTest {
    private static final LocalDate DAY = LocalDate.of(2026, 11, 16);

    private static Schema schema() throws SAXException {
        URL published = PublishedSchemaTest.class.getResource("/camt.052.001.08.xsd");
        assertThat(published).isNotNull();
        return SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI).newSchema(published);
    }

    private static String asReport(byte[] statement) {
        return new String(statement, StandardCharsets.UTF_8)
                .replace("camt.053.001.08", "camt.052.001.08")
                .replace("BkToCstmrStmt>", "BkToCstmrAcctRpt>")
                .replace("Stmt>", "Rpt>");
    }

    private static void validate(String document) throws Exception {
        schema().newValidator().validate(new StreamSource(new StringReader(document)));
    }

    @Test
    void aStatementIsAsPublished() {
        BankPaper paper = new BankPaper("004417720931", "USD", 2);
        BankPaper.Statement of = new BankPaper.Statement(
                14,
                DAY.minusDays(2),
                DAY,
                100_000,
                -25_275,
                List.of(
                        new Agreement.Moved(DAY, 41_237, -122_500, "Check paid"),
                        new Agreement.Moved(DAY, 0, -3_000, "Charges & fees <monthly>"),
                        new Agreement.Moved(DAY, 0, 225, "Île de Gorse")));
        assertThatCode(() -> validate(asReport(paper.camt(of)))).doesNotThrowAnyException();
        BankPaper.Statement quiet = new BankPaper.Statement(15, DAY, DAY, 0, 0, List.of());
        assertThatCode(() -> validate(asReport(paper.camt(quiet)))).doesNotThrowAnyException();
    }

    /** The schema is one that can fail. */
    @Test
    void anotherOneIsNot() {
        BankPaper paper = new BankPaper("004417720931", "USD", 2);
        String report = asReport(paper.camt(new BankPaper.Statement(15, DAY, DAY, 0, 0, List.of())));
        assertThatThrownBy(() -> validate(report.replace("CdtDbtInd", "Sign"))).isInstanceOf(SAXException.class);
    }
}
