package leveltally.core.electronic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.StringReader;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.SchemaFactory;
import leveltally.core.Refusal;
import leveltally.core.electronic.TransferStatus.Of;
import leveltally.core.electronic.TransferStatus.Verdict;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Status reports as banks write them, which themselves are as published. */
class StatusReportReaderTest {
    private static final String REPORT = """
            <?xml version="1.0" encoding="UTF-8"?>
            <Document xmlns="urn:iso:std:iso:20022:tech:xsd:pain.002.001.10"><CstmrPmtStsRpt>
              <GrpHdr><MsgId>B-1</MsgId><CreDtTm>2026-11-12T18:00:00</CreDtTm></GrpHdr>
              <OrgnlGrpInfAndSts><OrgnlMsgId>M-27</OrgnlMsgId><OrgnlMsgNmId>pain.001.001.09</OrgnlMsgNmId>
                <GrpSts>PART</GrpSts></OrgnlGrpInfAndSts>
              <OrgnlPmtInfAndSts><OrgnlPmtInfId>M-27-1</OrgnlPmtInfId><PmtInfSts>PART</PmtInfSts>
                <TxInfAndSts><StsId>1</StsId><OrgnlEndToEndId>E-41</OrgnlEndToEndId><TxSts>RJCT</TxSts>
                  <StsRsnInf><Rsn><Cd>AC04</Cd></Rsn><AddtlInf>closed in &lt;May&gt;</AddtlInf></StsRsnInf></TxInfAndSts>
                <TxInfAndSts><OrgnlEndToEndId>E-42</OrgnlEndToEndId><TxSts>ACSC</TxSts></TxInfAndSts>
                <TxInfAndSts><OrgnlEndToEndId>E-43</OrgnlEndToEndId><TxSts>PDNG</TxSts></TxInfAndSts>
              </OrgnlPmtInfAndSts>
              <OrgnlPmtInfAndSts><OrgnlPmtInfId>M-27-2</OrgnlPmtInfId><PmtInfSts>RJCT</PmtInfSts>
                <StsRsnInf><Rsn><Prtry>77</Prtry></Rsn></StsRsnInf></OrgnlPmtInfAndSts>
            </CstmrPmtStsRpt></Document>
            """;

    private static List<TransferStatus> read(String report) {
        List<TransferStatus> told = new ArrayList<>();
        String of =
                StatusReportReader.read(new ByteArrayInputStream(report.getBytes(StandardCharsets.UTF_8)), told::add);
        assertThat(of).isEqualTo("M-27");
        return told;
    }

    @Test
    void fileGroupAndTransferAreTold() {
        assertThat(read(REPORT))
                .containsExactly(
                        new TransferStatus(Of.FILE, "M-27", Verdict.IN_PART, ""),
                        new TransferStatus(
                                Of.TRANSFER, "E-41", Verdict.REFUSED, "the account is closed; closed in <May>"),
                        new TransferStatus(Of.TRANSFER, "E-42", Verdict.TOOK, ""),
                        new TransferStatus(Of.TRANSFER, "E-43", Verdict.NOT_KNOWN, ""),
                        new TransferStatus(Of.GROUP, "M-27-1", Verdict.IN_PART, ""),
                        new TransferStatus(Of.GROUP, "M-27-2", Verdict.REFUSED, "77"));
    }

    @Test
    void theReportOfTheTestIsAsPublished() throws Exception {
        URL published = StatusReportReaderTest.class.getResource("/pain.002.001.10.xsd");
        SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI)
                .newSchema(published)
                .newValidator()
                .validate(new StreamSource(new StringReader(REPORT)));
    }

    @ParameterizedTest
    @CsvSource({
        "ACTC, TOOK",
        "ACCP, TOOK",
        "ACWC, TOOK",
        "RCVD, NOT_KNOWN",
        "RJCT, REFUSED",
        "CANC, REFUSED",
        "XXXX, NOT_KNOWN"
    })
    void everyCodeComesToSomething(String code, Verdict verdict) {
        assertThat(read(REPORT.replace("ACSC", code)).get(2).verdict()).isEqualTo(verdict);
    }

    @Test
    void whatIsNoReportIsRefused() {
        for (int length = 0; length < REPORT.length() - 30; length += 53) {
            String cut = REPORT.substring(0, length);
            assertThatThrownBy(() -> read(cut))
                    .isInstanceOf(Refusal.class)
                    .hasMessageContaining("Nothing of it was read");
        }
        assertThatThrownBy(() -> read(REPORT.replace("pain.002", "pain.001"))).hasMessageContaining("no status report");
        assertThatThrownBy(() -> read(REPORT.replace("<OrgnlMsgId>M-27</OrgnlMsgId>", "")))
                .hasMessageContaining("of which file");
        assertThatThrownBy(
                        () -> read(REPORT.replace("?>", "?><!DOCTYPE a [<!ENTITY b SYSTEM \"file:///etc/passwd\">]>")))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> read(REPORT.replace("E-42", "x".repeat(3_000))))
                .hasMessageContaining("longer than");
    }
}
