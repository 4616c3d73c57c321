package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
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
    private final PlainXml xml;
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
            throws IOException {
        this.sender = sender;
        this.xml = new PlainXml(out);
        xml.begin("Document", "xmlns", sender.message().namespace()).begin("CstmrCdtTrfInitn");
        xml.begin("GrpHdr");
        xml.element("MsgId", id);
        xml.element("CreDtTm", made.truncatedTo(ChronoUnit.SECONDS).format(DateTimeFormatter.ISO_LOCAL_DATE_TIME));
        sums(all);
        xml.begin("InitgPty");
        xml.element("Nm", sender.name());
        if (!sender.id().isEmpty()) {
            xml.begin("Id")
                    .begin("OrgId")
                    .begin("Othr")
                    .element("Id", sender.id())
                    .end()
                    .end()
                    .end();
        }
        xml.end();
        xml.end();
    }

    /**
     * Begins a group.
     *
     * @param id at most 35 characters, told apart from all others of the company
     * @param day a banking day, on which the account is debited
     */
    public void begin(String id, LocalDate day, Sums of) throws IOException {
        if (!group.isEmpty()) {
            throw new IllegalStateException("group " + group + " has not ended");
        }
        group = id;
        xml.begin("PmtInf");
        xml.element("PmtInfId", id);
        xml.element("PmtMtd", "TRF");
        sums(of);
        if (sender.message() == Message.PAIN_001_03) {
            xml.element("ReqdExctnDt", day.toString());
        } else {
            xml.begin("ReqdExctnDt").element("Dt", day.toString()).end();
        }
        xml.begin("Dbtr").element("Nm", sender.name()).end();
        account("DbtrAcct", sender.account(), of.total().currency().getCurrencyCode());
        bank("DbtrAgt", sender.account());
        xml.element("ChrgBr", sender.charges().name());
    }

    private void sums(Sums of) throws IOException {
        xml.element("NbOfTxs", String.valueOf(of.count()));
        xml.element("CtrlSum", of.total().plain());
    }

    public void transfer(Transfer one) throws IOException {
        if (group.isEmpty()) {
            throw new IllegalStateException("no group has begun");
        }
        xml.begin("CdtTrfTxInf");
        xml.begin("PmtId");
        xml.element("EndToEndId", one.endToEnd());
        xml.end();
        xml.begin("Amt");
        amount("InstdAmt", one.amount());
        xml.end();
        if (!one.account().bic().isEmpty() || !one.account().routing().isEmpty()) {
            bank("CdtrAgt", one.account());
        }
        xml.begin("Cdtr");
        xml.element("Nm", one.payee());
        if (!one.address().isEmpty()) {
            xml.begin("PstlAdr");
            for (String line : one.address()) {
                xml.element("AdrLine", line);
            }
            xml.end();
        }
        xml.end();
        account("CdtrAcct", one.account(), "");
        remittance(one);
        xml.end();
    }

    private void remittance(Transfer one) throws IOException {
        if (one.paid().isEmpty()) {
            return;
        }
        xml.begin("RmtInf");
        if (sender.structured()) {
            for (Transfer.Paid paid : one.paid()) {
                document(paid);
            }
        } else {
            xml.element("Ustrd", one.text());
        }
        xml.end();
    }

    private void document(Transfer.Paid paid) throws IOException {
        xml.begin("Strd");
        xml.begin("RfrdDocInf");
        xml.begin("Tp")
                .begin("CdOrPrtry")
                .element("Cd", paid.credit() ? "CREN" : "CINV")
                .end()
                .end();
        xml.element("Nb", paid.reference());
        xml.end();
        Money amount = paid.amount();
        if (amount != null) {
            xml.begin("RfrdDocAmt");
            amount(paid.credit() ? "CdtNoteAmt" : "RmtdAmt", amount);
            xml.end();
        }
        xml.end();
    }

    public void end() throws IOException {
        xml.end();
        group = "";
    }

    /** Ends the file; the stream it was written to stays open. */
    public void finish() throws IOException {
        if (!group.isEmpty()) {
            throw new IllegalStateException("group " + group + " has not ended");
        }
        xml.finish();
    }

    private void account(String name, BankDetails of, String currency) throws IOException {
        xml.begin(name);
        if (of.routing().isEmpty()) {
            xml.begin("Id").element("IBAN", of.account()).end();
        } else {
            xml.begin("Id").begin("Othr").element("Id", of.account()).end().end();
        }
        if (!currency.isEmpty()) {
            xml.element("Ccy", currency);
        }
        xml.end();
    }

    private void bank(String name, BankDetails account) throws IOException {
        xml.begin(name);
        xml.begin("FinInstnId");
        if (!account.bic().isEmpty()) {
            xml.element(sender.message() == Message.PAIN_001_03 ? "BIC" : "BICFI", account.bic());
        } else if (!account.routing().isEmpty()) {
            xml.begin("ClrSysMmbId");
            xml.begin("ClrSysId").element("Cd", ROUTING_NUMBERS).end();
            xml.element("MmbId", account.routing());
            xml.end();
        } else {
            xml.begin("Othr").element("Id", "NOTPROVIDED").end();
        }
        xml.end();
        xml.end();
    }

    private void amount(String name, Money amount) throws IOException {
        xml.begin(name, "Ccy", amount.currency().getCurrencyCode())
                .text(amount.plain())
                .end();
    }
}
