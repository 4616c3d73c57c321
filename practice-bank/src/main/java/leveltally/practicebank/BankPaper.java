package leveltally.practicebank;

import java.io.ByteArrayOutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** What the bank writes: lists of paid checks, and statements. */
final class BankPaper {
    private static final String CAMT = "urn:iso:std:iso:20022:tech:xsd:camt.053.001.08";

    private final String accountNumber;
    private final String currency;
    private final int decimals;

    BankPaper(String accountNumber, String currency, int decimals) {
        this.accountNumber = accountNumber;
        this.currency = currency;
        this.decimals = decimals;
    }

    record Statement(
            long number, LocalDate from, LocalDate to, long opening, long closing, List<Agreement.Moved> moved) {}

    private String plain(long minor) {
        return BigDecimal.valueOf(minor, decimals).toPlainString();
    }

    /** Sixty characters a record; a trailer counts, adds up the amounts and the numbers. */
    byte[] columns(LocalDate day, List<Agreement.Moved> paid) {
        DateTimeFormatter compact = DateTimeFormatter.BASIC_ISO_DATE;
        StringBuilder text = new StringBuilder();
        text.append(String.format(Locale.ROOT, "1PAID%12s%s%35s\r\n", accountNumber, day.format(compact), "")
                .replaceFirst("(?<=^1PAID) +", zeros()));
        long total = 0;
        long numbers = 0;
        for (Agreement.Moved one : paid) {
            total += -one.minor();
            numbers += one.check();
            text.append(String.format(
                    Locale.ROOT,
                    "5P%010d%012d%s%-20s%8s\r\n",
                    one.check(),
                    -one.minor(),
                    one.day().format(compact),
                    "",
                    ""));
        }
        text.append(String.format(
                Locale.ROOT, "9%08d%014d%012d%25s\r\n", paid.size(), total, numbers % 1_000_000_000_000L, ""));
        return text.toString().getBytes(StandardCharsets.US_ASCII);
    }

    private String zeros() {
        return "0".repeat(Math.max(0, 12 - accountNumber.length()));
    }

    byte[] commas(List<Agreement.Moved> paid) {
        StringBuilder text = new StringBuilder("paid on,check,amount,reference\r\n");
        for (Agreement.Moved one : paid) {
            text.append(one.day())
                    .append(',')
                    .append(one.check())
                    .append(',')
                    .append(plain(-one.minor()))
                    .append(",\r\n");
        }
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }

    byte[] semicolons(Statement of) {
        StringBuilder text = new StringBuilder();
        text.append(String.join(
                        ";",
                        "STATEMENT",
                        accountNumber,
                        String.valueOf(of.number()),
                        of.from().toString(),
                        of.to().toString(),
                        plain(of.opening()),
                        plain(of.closing())))
                .append("\r\n");
        long balance = of.opening();
        for (Agreement.Moved one : of.moved()) {
            balance += one.minor();
            boolean out = one.minor() < 0;
            text.append(String.join(
                            ";",
                            one.day().toString(),
                            one.check() == 0 ? "" : String.valueOf(one.check()),
                            out ? plain(-one.minor()) : "",
                            out ? "" : plain(one.minor()),
                            plain(balance),
                            "",
                            one.text().replace(';', ',')))
                    .append("\r\n");
        }
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }

    /** ISO 20022 camt.053.001.08. */
    byte[] camt(Statement of) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            XMLStreamWriter xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(bytes, "UTF-8");
            xml.writeStartDocument("UTF-8", "1.0");
            xml.writeStartElement("Document");
            xml.writeDefaultNamespace(CAMT);
            xml.writeStartElement("BkToCstmrStmt");
            xml.writeStartElement("GrpHdr");
            text(xml, "MsgId", "S" + of.number());
            text(xml, "CreDtTm", of.to() + "T18:00:00");
            xml.writeEndElement();
            xml.writeStartElement("Stmt");
            text(xml, "Id", "S" + of.number());
            text(xml, "ElctrncSeqNb", String.valueOf(of.number()));
            text(xml, "CreDtTm", of.to() + "T18:00:00");
            xml.writeStartElement("FrToDt");
            text(xml, "FrDtTm", of.from() + "T00:00:00");
            text(xml, "ToDtTm", of.to() + "T23:59:59");
            xml.writeEndElement();
            within(xml, List.of("Acct", "Id", "Othr"), "Id", accountNumber);
            balance(xml, "OPBD", of.opening(), of.from());
            balance(xml, "CLBD", of.closing(), of.to());
            for (Agreement.Moved one : of.moved()) {
                entry(xml, one);
            }
            xml.writeEndDocument();
            xml.close();
        } catch (XMLStreamException inMemory) {
            throw new IllegalStateException(inMemory);
        }
        return bytes.toByteArray();
    }

    private void entry(XMLStreamWriter xml, Agreement.Moved one) throws XMLStreamException {
        xml.writeStartElement("Ntry");
        amount(xml, one.minor());
        xml.writeStartElement("Sts");
        text(xml, "Cd", "BOOK");
        xml.writeEndElement();
        within(xml, List.of("BookgDt"), "Dt", one.day().toString());
        within(xml, List.of("BkTxCd", "Prtry"), "Cd", one.check() == 0 ? "OTHER" : "CHECK");
        if (one.check() != 0) {
            within(xml, List.of("NtryDtls", "TxDtls", "Refs"), "ChqNb", String.valueOf(one.check()));
        }
        text(xml, "AddtlNtryInf", one.text());
        xml.writeEndElement();
    }

    private void balance(XMLStreamWriter xml, String code, long minor, LocalDate day) throws XMLStreamException {
        xml.writeStartElement("Bal");
        within(xml, List.of("Tp", "CdOrPrtry"), "Cd", code);
        amount(xml, minor);
        within(xml, List.of("Dt"), "Dt", day.toString());
        xml.writeEndElement();
    }

    private void amount(XMLStreamWriter xml, long minor) throws XMLStreamException {
        xml.writeStartElement("Amt");
        xml.writeAttribute("Ccy", currency);
        xml.writeCharacters(plain(Math.abs(minor)));
        xml.writeEndElement();
        text(xml, "CdtDbtInd", minor < 0 ? "DBIT" : "CRDT");
    }

    private static void within(XMLStreamWriter xml, List<String> path, String name, String text)
            throws XMLStreamException {
        for (String step : path) {
            xml.writeStartElement(step);
        }
        text(xml, name, text);
        for (int i = 0; i < path.size(); i++) {
            xml.writeEndElement();
        }
    }

    private static void text(XMLStreamWriter xml, String name, String text) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }
}
