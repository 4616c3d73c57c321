package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.List;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import leveltally.core.electronic.TransferSender.Message;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;

/**
 * Writes a file of credit transfers element by element (ISO 20022 pain.001, customer credit transfer initiation): one group of
 * payments for each execution day.
 */
public final class TransferWriter {
    private static final String ROUTING_NUMBERS = "USABA";

    private final TransferSender sender;
    private final Writer text;
    private final XMLStreamWriter xml;
    private String group = "";

    /**
     * How many transfers there are, and what they come to; said before the first.
     *
     * @param total of all of them
     */
    public record Sums(long count, Money total) {}

    /**
     * @param id of the message, at most 35 characters
     * @param made when, by the company's clock
     * @param all what the whole file holds
     */
    public TransferWriter(TransferSender sender, String id, LocalDateTime made, Sums all, OutputStream out)
            throws XMLStreamException {
        this.sender = sender;
        // it writes character by character, to a stream each through a lock
        this.text = new PlainWriter(out);
        this.xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(text);
        xml.writeStartDocument("UTF-8", "1.0");
        xml.writeStartElement("Document");
        xml.writeDefaultNamespace(sender.message().namespace());
        xml.writeStartElement("CstmrCdtTrfInitn");
        xml.writeStartElement("GrpHdr");
        text("MsgId", id);
        text("CreDtTm", made.truncatedTo(ChronoUnit.SECONDS).format(DateTimeFormatter.ISO_LOCAL_DATE_TIME));
        sums(all);
        xml.writeStartElement("InitgPty");
        text("Nm", sender.name());
        if (!sender.id().isEmpty()) {
            within(List.of("Id", "OrgId", "Othr"), "Id", sender.id());
        }
        xml.writeEndElement();
        xml.writeEndElement();
    }

    /**
     * Begins a group.
     *
     * @param id at most 35 characters, told apart from all others of the company
     * @param day a banking day, on which the account is debited
     */
    public void begin(String id, LocalDate day, Sums of) throws XMLStreamException {
        if (!group.isEmpty()) {
            throw new IllegalStateException("group " + group + " has not ended");
        }
        group = id;
        xml.writeStartElement("PmtInf");
        text("PmtInfId", id);
        text("PmtMtd", "TRF");
        sums(of);
        if (sender.message() == Message.PAIN_001_03) {
            text("ReqdExctnDt", day.toString());
        } else {
            within(List.of("ReqdExctnDt"), "Dt", day.toString());
        }
        within(List.of("Dbtr"), "Nm", sender.name());
        account("DbtrAcct", sender.account(), of.total().currency().getCurrencyCode());
        bank("DbtrAgt", sender.account());
        text("ChrgBr", sender.charges().name());
    }

    private void sums(Sums of) throws XMLStreamException {
        text("NbOfTxs", String.valueOf(of.count()));
        text("CtrlSum", of.total().plain());
    }

    public void transfer(Transfer one) throws XMLStreamException {
        if (group.isEmpty()) {
            throw new IllegalStateException("no group has begun");
        }
        xml.writeStartElement("CdtTrfTxInf");
        xml.writeStartElement("PmtId");
        text("EndToEndId", one.endToEnd());
        xml.writeEndElement();
        xml.writeStartElement("Amt");
        amount("InstdAmt", one.amount());
        xml.writeEndElement();
        if (!one.account().bic().isEmpty() || !one.account().routing().isEmpty()) {
            bank("CdtrAgt", one.account());
        }
        xml.writeStartElement("Cdtr");
        text("Nm", one.payee());
        if (!one.address().isEmpty()) {
            xml.writeStartElement("PstlAdr");
            for (String line : one.address()) {
                text("AdrLine", line);
            }
            xml.writeEndElement();
        }
        xml.writeEndElement();
        account("CdtrAcct", one.account(), "");
        remittance(one);
        xml.writeEndElement();
    }

    private void remittance(Transfer one) throws XMLStreamException {
        if (one.paid().isEmpty()) {
            return;
        }
        xml.writeStartElement("RmtInf");
        if (sender.structured()) {
            for (Transfer.Paid paid : one.paid()) {
                document(paid);
            }
        } else {
            text("Ustrd", one.text());
        }
        xml.writeEndElement();
    }

    private void document(Transfer.Paid paid) throws XMLStreamException {
        xml.writeStartElement("Strd");
        xml.writeStartElement("RfrdDocInf");
        within(List.of("Tp", "CdOrPrtry"), "Cd", paid.credit() ? "CREN" : "CINV");
        text("Nb", paid.reference());
        xml.writeEndElement();
        Money amount = paid.amount();
        if (amount != null) {
            xml.writeStartElement("RfrdDocAmt");
            amount(paid.credit() ? "CdtNoteAmt" : "RmtdAmt", amount);
            xml.writeEndElement();
        }
        xml.writeEndElement();
    }

    public void end() throws XMLStreamException {
        xml.writeEndElement();
        group = "";
    }

    /** Ends the file; the stream it was written to stays open. */
    public void finish() throws XMLStreamException, IOException {
        if (!group.isEmpty()) {
            throw new IllegalStateException("group " + group + " has not ended");
        }
        xml.writeEndDocument();
        xml.close();
        text.flush();
    }

    private void account(String name, BankDetails of, String currency) throws XMLStreamException {
        xml.writeStartElement(name);
        if (of.routing().isEmpty()) {
            within(List.of("Id"), "IBAN", of.account());
        } else {
            within(List.of("Id", "Othr"), "Id", of.account());
        }
        if (!currency.isEmpty()) {
            text("Ccy", currency);
        }
        xml.writeEndElement();
    }

    private void bank(String name, BankDetails account) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeStartElement("FinInstnId");
        if (!account.bic().isEmpty()) {
            text(sender.message() == Message.PAIN_001_03 ? "BIC" : "BICFI", account.bic());
        } else if (!account.routing().isEmpty()) {
            xml.writeStartElement("ClrSysMmbId");
            within(List.of("ClrSysId"), "Cd", ROUTING_NUMBERS);
            text("MmbId", account.routing());
            xml.writeEndElement();
        } else {
            within(List.of("Othr"), "Id", "NOTPROVIDED");
        }
        xml.writeEndElement();
        xml.writeEndElement();
    }

    private void amount(String name, Money amount) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeAttribute("Ccy", amount.currency().getCurrencyCode());
        xml.writeCharacters(amount.plain());
        xml.writeEndElement();
    }

    private void within(List<String> path, String name, String text) throws XMLStreamException {
        for (String step : path) {
            xml.writeStartElement(step);
        }
        text(name, text);
        for (int i = 0; i < path.size(); i++) {
            xml.writeEndElement();
        }
    }

    private void text(String name, String text) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }
}
