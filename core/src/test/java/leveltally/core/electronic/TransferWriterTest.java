package leveltally.core.electronic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Random;
import javax.xml.XMLConstants;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.SchemaFactory;
import leveltally.core.Refusal;
import leveltally.core.electronic.TransferSender.Charges;
import leveltally.core.electronic.TransferSender.Message;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.xml.sax.SAXException;

/** Files of credit transfers against the published schemas of both versions, and beside one written out by hand. */
class TransferWriterTest {
    private static final Currency EUR = Currency.getInstance("EUR");
    private static final LocalDate FRIDAY = LocalDate.of(2026, 11, 13);
    private static final LocalDateTime MADE = LocalDateTime.of(2026, 11, 12, 9, 5);
    private static final BankDetails IBAN = new BankDetails("", "ZZ650000123456789012");
    private static final BankDetails WITH_BIC = new BankDetails("", "ZZ650000123456789012", false, "DUNLZZ2XXXX");
    private static final BankDetails OWN = new BankDetails("", "ZZ650000123456789012", false, "SKTRXX22");
    private static final BankDetails ROUTED = new BankDetails("990073053", "770031182264");
    private static final String EVERY_LETTER = "Île & <Gorse> \"株\" Паром מעבורת ☂ ]]> ' \u0007";

    private static TransferSender sender(Message message, boolean structured, BankDetails account) {
        return new TransferSender(message, "Marrow Bay Ferries", "994400117", account, Charges.SLEV, structured);
    }

    private static byte[] file(TransferSender sender, List<Transfer> transfers) throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        Currency currency = transfers.get(0).amount().currency();
        TransferWriter.Sums sums = new TransferWriter.Sums(
                transfers.size(),
                Money.sum(transfers.stream().map(Transfer::amount).toList(), currency));
        TransferWriter writer = new TransferWriter(sender, "M-27", MADE, sums, bytes);
        writer.begin("M-27-1", FRIDAY, sums);
        for (Transfer one : transfers) {
            writer.transfer(one);
        }
        writer.end();
        writer.finish();
        return bytes.toByteArray();
    }

    private static void validate(Message message, byte[] file) throws Exception {
        URL published = TransferWriterTest.class.getResource("/" + message.id() + ".xsd");
        SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI)
                .newSchema(published)
                .newValidator()
                .validate(new StreamSource(new ByteArrayInputStream(file)));
    }

    @Test
    void aFileIsAsItWasWrittenOutByHand() throws Exception {
        Transfer one = new Transfer(
                "E-41",
                Money.parse("1225.00", EUR),
                WITH_BIC,
                "Île de Gorse Pêcheries",
                List.of("1 Quai du Fer", "", "29000 Gorse", "Gorse"),
                List.of(
                        new Transfer.Paid("F-1180", false, Money.parse("1250.00", EUR)),
                        new Transfer.Paid("C-7", true, Money.parse("25.00", EUR))));
        String text = new String(file(sender(Message.PAIN_001_09, true, OWN), List.of(one)), StandardCharsets.UTF_8);
        assertThat(text)
                .isEqualTo("<?xml version=\"1.0\" encoding=\"UTF-8\"?>"
                        + "<Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:pain.001.001.09\"><CstmrCdtTrfInitn>"
                        + "<GrpHdr><MsgId>M-27</MsgId><CreDtTm>2026-11-12T09:05:00</CreDtTm><NbOfTxs>1</NbOfTxs>"
                        + "<CtrlSum>1225.00</CtrlSum><InitgPty><Nm>Marrow Bay Ferries</Nm><Id><OrgId><Othr><Id>994400117</Id>"
                        + "</Othr></OrgId></Id></InitgPty></GrpHdr>"
                        + "<PmtInf><PmtInfId>M-27-1</PmtInfId><PmtMtd>TRF</PmtMtd><NbOfTxs>1</NbOfTxs><CtrlSum>1225.00</CtrlSum>"
                        + "<ReqdExctnDt><Dt>2026-11-13</Dt></ReqdExctnDt><Dbtr><Nm>Marrow Bay Ferries</Nm></Dbtr>"
                        + "<DbtrAcct><Id><IBAN>ZZ650000123456789012</IBAN></Id><Ccy>EUR</Ccy></DbtrAcct>"
                        + "<DbtrAgt><FinInstnId><BICFI>SKTRXX22</BICFI></FinInstnId></DbtrAgt><ChrgBr>SLEV</ChrgBr>"
                        + "<CdtTrfTxInf><PmtId><EndToEndId>E-41</EndToEndId></PmtId>"
                        + "<Amt><InstdAmt Ccy=\"EUR\">1225.00</InstdAmt></Amt>"
                        + "<CdtrAgt><FinInstnId><BICFI>DUNLZZ2XXXX</BICFI></FinInstnId></CdtrAgt>"
                        + "<Cdtr><Nm>Ile de Gorse Pecheries</Nm><PstlAdr><AdrLine>1 Quai du Fer</AdrLine>"
                        + "<AdrLine>29000 Gorse</AdrLine></PstlAdr></Cdtr>"
                        + "<CdtrAcct><Id><IBAN>ZZ650000123456789012</IBAN></Id></CdtrAcct>"
                        + "<RmtInf><Strd><RfrdDocInf><Tp><CdOrPrtry><Cd>CINV</Cd></CdOrPrtry></Tp><Nb>F-1180</Nb></RfrdDocInf>"
                        + "<RfrdDocAmt><RmtdAmt Ccy=\"EUR\">1250.00</RmtdAmt></RfrdDocAmt></Strd>"
                        + "<Strd><RfrdDocInf><Tp><CdOrPrtry><Cd>CREN</Cd></CdOrPrtry></Tp><Nb>C-7</Nb></RfrdDocInf>"
                        + "<RfrdDocAmt><CdtNoteAmt Ccy=\"EUR\">25.00</CdtNoteAmt></RfrdDocAmt></Strd></RmtInf>"
                        + "</CdtTrfTxInf></PmtInf></CstmrCdtTrfInitn></Document>");
    }

    /**
     * Whatever names, references and currencies come: both versions take it. The schema of the older one is that of a subset, which
     * knows euros between accounts with an IBAN only, and texts.
     */
    @ParameterizedTest
    @EnumSource
    void everyFileIsAsPublished(Message message) throws Exception {
        Random random = new Random(3);
        for (int round = 0; round < 60; round++) {
            boolean all = message == Message.PAIN_001_09;
            Currency currency =
                    Currency.getInstance(List.of("EUR", "USD", "JPY", "KWD").get(all ? round % 4 : 0));
            List<Transfer> transfers = new ArrayList<>();
            for (int i = 0; i <= random.nextInt(4); i++) {
                List<Transfer.Paid> paid = new ArrayList<>();
                for (int k = random.nextInt(9); k > 0; k--) {
                    paid.add(new Transfer.Paid(
                            EVERY_LETTER.substring(random.nextInt(9)) + k + "x".repeat(random.nextInt(40)),
                            random.nextBoolean(),
                            random.nextBoolean() ? Money.ofMinor(1 + random.nextInt(99_999), currency) : null));
                }
                transfers.add(new Transfer(
                        "E-" + round + "." + i,
                        Money.ofMinor(1 + Math.abs(random.nextLong() % 9_999_999_999L), currency),
                        random.nextBoolean() || !all ? random.nextBoolean() ? IBAN : WITH_BIC : ROUTED,
                        EVERY_LETTER + "n".repeat(random.nextInt(90)),
                        List.of(EVERY_LETTER, "\u0007", "l".repeat(random.nextInt(100))),
                        paid));
            }
            validate(
                    message,
                    file(
                            sender(
                                    message,
                                    random.nextBoolean() && all,
                                    random.nextBoolean() || !all ? random.nextBoolean() ? IBAN : WITH_BIC : ROUTED),
                            transfers));
        }
    }

    @Test
    void theSchemaCanFail() throws Exception {
        Transfer one = new Transfer("E-1", Money.ofMinor(1, EUR), IBAN, "x", List.of(), List.of());
        byte[] file = file(sender(Message.PAIN_001_03, false, IBAN), List.of(one));
        validate(Message.PAIN_001_03, file);
        assertThatThrownBy(() -> validate(Message.PAIN_001_09, file)).isInstanceOf(SAXException.class);
    }

    @Test
    void whatHasNoRoomIsSaidToBeMore() {
        List<Transfer.Paid> many = new ArrayList<>();
        for (int i = 0; i < 45; i++) {
            many.add(new Transfer.Paid("INVOICE-" + (1000 + i), false, null));
        }
        Transfer transfer = new Transfer("E-1", Money.ofMinor(1, EUR), IBAN, "x", List.of(), many);
        assertThat(transfer.text())
                .hasSizeLessThanOrEqualTo(140)
                .startsWith("INVOICE-1000, INVOICE-1001")
                .endsWith("INVOICE-1008 + 36 more");
        assertThat(new Transfer("E-1", Money.ofMinor(1, EUR), IBAN, "x", List.of(), many.subList(0, 2)).text())
                .isEqualTo("INVOICE-1000, INVOICE-1001");
    }

    @Test
    void whatCannotBeWrittenIsRefused() {
        assertThatThrownBy(() -> new Transfer("E-1", Money.zero(EUR), IBAN, "x", List.of(), List.of()))
                .hasMessageContaining("more than nothing");
        assertThatThrownBy(() -> new Transfer("E-1", Money.ofMinor(1, EUR), IBAN, "☂☂", List.of(), List.of()))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("No letter of the payee's name");
    }
}
